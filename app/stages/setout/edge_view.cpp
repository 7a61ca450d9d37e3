#include "app/stages/setout/edge_view.h"

#include "app/document/commands.h"
#include "app/document/shell_commands.h"
#include "app/drawing/set_out_drawing.h"
#include "app/drawing/surface_drawing.h"
#include "app/drawing/theme.h"
#include "core/families/family.h"
#include "formats/trim_words.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QScrollArea>
#include <QVBoxLayout>

#include <cmath>

namespace westrum {
namespace {

constexpr double kReach = 12; ///< pixels

double distanceTo(const QPointF& at, const QPointF& a, const QPointF& b) {
    const QPointF d = b - a;
    const double l = QPointF::dotProduct(d, d);
    const double t = l > 0 ? std::clamp(QPointF::dotProduct(at - a, d) / l, 0.0, 1.0) : 0;
    const QPointF near = a + d * t - at;
    return std::hypot(near.x(), near.y());
}

} // namespace

/// The surface with its trims; runs and joints are taken by pointing, joints also by the arrow keys.
class EdgeBench : public QWidget {
public:
    EdgeBench(JobDocument& document, char decimalMark, std::function<void(int)> takeRun,
              std::function<void(const JointPlace&)> takeJoint, std::function<void(int)> step)
        : document_(document),
          decimalMark_(decimalMark),
          takeRun_(std::move(takeRun)),
          takeJoint_(std::move(takeJoint)),
          step_(std::move(step)) {
        setFocusPolicy(Qt::StrongFocus);
        setObjectName(QStringLiteral("edgeBench"));
        setAccessibleName(EdgeView::tr("Edges of the surface: arrow keys go from joint to joint"));
        setSizePolicy(QSizePolicy::Expanding, QSizePolicy::Expanding);
    }
    QSize minimumSizeHint() const override { return {360, 220}; }

    [[nodiscard]] const SurfacePlan* plan() const {
        const SurfacePlan* p = document_.plan()->surface(document_.currentSurface());
        return p && p->measured.measured() ? p : nullptr;
    }
    [[nodiscard]] PlanView view(const SurfacePlan& plan) const {
        return {boundsOf(plan.measured.outline), QRectF(rect()).adjusted(30, 24, -30, -24)};
    }
    TrimMarks marks;

protected:
    void paintEvent(QPaintEvent*) override {
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        const SurfacePlan* planned = plan();
        if (!planned) return;
        const PlanView v = view(*planned);
        const Figures f = figuresFor(document_.job(), decimalMark_);
        const LayerPlan* face = planned->faceLayer();
        paintSetOut(p, v, planned->measured.outline, planned->setOut(),
                    face ? document_.job().catalogue.find(face->product) : nullptr, f,
                    {.names = false, .offcuts = false, .slivers = false});
        paintSurfaceParts(p, v, *document_.job().surface(planned->surface), planned->shape,
                          {.supports = true, .supportsBehind = true, .names = false});
        QColor veil = Theme::now().paper; // the edges stand out from what they close
        veil.setAlpha(120);
        p.fillPath(v.path(planned->measured.outline), veil);
        paintTrims(p, v, document_.job(), *document_.plan(), planned->surface, marks);
        if (hasFocus()) {
            p.setBrush(Qt::NoBrush);
            p.setPen(QPen(Theme::now().chalk, 1, Qt::DotLine));
            p.drawRect(rect().adjusted(2, 2, -3, -3));
        }
    }
    void mousePressEvent(QMouseEvent* event) override {
        const SurfacePlan* planned = plan();
        if (!planned || event->button() != Qt::LeftButton) return;
        const PlanView v = view(*planned);
        JointPlace nearest;
        double least = kReach;
        for (const auto& [place, at] : jointPlaces(*document_.plan(), planned->surface))
            if (const double d =
                    std::hypot(v.map(at).x() - event->position().x(), v.map(at).y() - event->position().y());
                d < least) {
                least = d;
                nearest = place;
            }
        if (nearest.run >= 0) return takeJoint_(nearest);
        int run = -1;
        least = kReach + 6;
        for (std::size_t r = 0; r < document_.plan()->trims.runs.size(); ++r) {
            const Ring line =
                runLineOn(document_.plan()->trims.runs[r], document_.job(), *document_.plan(), planned->surface);
            for (std::size_t i = 1; i < line.size(); ++i)
                if (const double d = distanceTo(event->position(), v.map(line[i - 1]), v.map(line[i])); d < least) {
                    least = d;
                    run = static_cast<int>(r);
                }
        }
        takeRun_(run);
    }
    void keyPressEvent(QKeyEvent* event) override {
        const int by = event->key() == Qt::Key_Right || event->key() == Qt::Key_Down ? 1
                       : event->key() == Qt::Key_Left || event->key() == Qt::Key_Up  ? -1
                                                                                     : 0;
        if (by == 0) return QWidget::keyPressEvent(event);
        step_(by);
    }

private:
    JobDocument& document_;
    char decimalMark_;
    std::function<void(int)> takeRun_;
    std::function<void(const JointPlace&)> takeJoint_;
    std::function<void(int)> step_;
};

/// The saw as it is set for the joint in hand, or the line to trace on it.
class SawPicture : public QWidget {
public:
    explicit SawPicture(char decimalMark) : decimalMark_(decimalMark) { setFixedHeight(210); }
    /// @param over  the trim that a coped end fits over
    void show(const Job& job, const TrimJoint* joint, bool atEnd, const Product* over) {
        joint_ = joint ? std::optional(*joint) : std::nullopt;
        over_ = joint && joint->end == TrimEnd::Coped && over ? std::optional(trimOf(*over)) : std::nullopt;
        atEnd_ = atEnd;
        figures_ = figuresFor(job, decimalMark_);
        setVisible(joint_ && (over_ || !joint_->saw.square()));
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override {
        if (!joint_) return;
        QPainter p(this);
        const QRectF into = QRectF(rect()).adjusted(6, 4, -6, -2);
        if (over_)
            paintCope(p, into, *over_, *joint_, atEnd_, figures_);
        else
            paintSaw(p, into, *joint_, atEnd_, figures_);
    }

private:
    char decimalMark_;
    std::optional<TrimJoint> joint_;
    std::optional<TrimLength> over_;
    bool atEnd_ = false;
    Figures figures_;
};

EdgeView::EdgeView(JobDocument& document, char decimalMark, QWidget* parent)
    : QWidget(parent),
      document_(document),
      decimalMark_(decimalMark),
      bench_(new EdgeBench(
          document, decimalMark, [this](int run) { takeRun(run); }, [this](const JointPlace& j) { takeJoint(j); },
          [this](int by) { stepJoint(by); })),
      runLine_(new QLabel),
      choice_(new QComboBox),
      everywhere_(new QPushButton),
      gauge_(new EntryField([this](const QString& typed) { return takeGauge(typed); })),
      gaugeName_(new QLabel(tr("corner as gauged, °"))),
      jointTitle_(new QLabel),
      saw_(new SawPicture(decimalMark)),
      jointText_(new QLabel),
      filler_(new QLabel) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(14);
    row->addWidget(bench_, 1);
    auto* panel = new QWidget; // scrolls in a low window
    auto* side = new QVBoxLayout(panel);
    side->setContentsMargins(0, 0, 8, 0);
    side->setSpacing(6);
    for (QLabel* label : {runLine_, jointTitle_, jointText_, filler_}) {
        label->setWordWrap(true);
        label->setTextFormat(Qt::PlainText);
        label->setFixedWidth(270);
    }
    runLine_->setObjectName(QStringLiteral("edgeRun"));
    jointTitle_->setObjectName(QStringLiteral("jointTitle"));
    jointText_->setObjectName(QStringLiteral("jointText"));
    filler_->setObjectName(QStringLiteral("fillerText"));
    jointTitle_->setFont(textFont(1.05, true));
    choice_->setObjectName(QStringLiteral("edgeTrim"));
    choice_->setAccessibleName(tr("Trim of this edge"));
    choice_->setFixedWidth(270);
    connect(choice_, &QComboBox::activated, this, [this](int index) {
        const TrimRun* r = run();
        if (!r || r->side < 0) return;
        push(document_,
             chooseEdgeTrim(document_, r->surface, r->side, choice_->itemData(index).toString().toStdString()));
    });
    side->addWidget(runLine_);
    side->addWidget(choice_);
    everywhere_->setObjectName(QStringLiteral("edgeEverywhere"));
    connect(everywhere_, &QPushButton::clicked, this, &EdgeView::chooseEverywhere);
    side->addWidget(everywhere_);
    side->addWidget(filler_);
    side->addSpacing(6);
    side->addWidget(jointTitle_);
    side->addWidget(saw_);
    side->addWidget(jointText_);
    auto* gauged = new QHBoxLayout;
    gauge_->setObjectName(QStringLiteral("cornerGauge"));
    gauge_->setAccessibleName(tr("The corner as a bevel gauge reads it, in degrees"));
    gauge_->setToolTip(tr("On the room's side; 90 is square. Emptied, it is as drawn."));
    gauge_->setFixedWidth(64);
    connect(gauge_, &EntryField::problemChanged, this, &EdgeView::problem);
    gauged->addWidget(gaugeName_);
    gauged->addWidget(gauge_);
    gauged->addStretch(1);
    side->addLayout(gauged);
    side->addStretch(1);
    auto* scroll = new QScrollArea;
    scroll->setWidget(panel);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFixedWidth(300);
    row->addWidget(scroll);
}

QWidget* EdgeView::bench() const { return bench_; }

QPointF EdgeView::onBench(const JointPlace& joint) const {
    for (const auto& [place, at] : jointPlaces(*document_.plan(), document_.currentSurface()))
        if (place == joint && bench_->plan()) return bench_->view(*bench_->plan()).map(at);
    return {};
}

QPointF EdgeView::onBench(int run) const {
    const Ring line = runLineOn(document_.plan()->trims.runs[static_cast<std::size_t>(run)], document_.job(),
                                *document_.plan(), document_.currentSurface());
    if (line.size() < 2 || !bench_->plan()) return {};
    return bench_->view(*bench_->plan()).map((line[0] + line[1]) * 0.5);
}

const TrimRun* EdgeView::run() const {
    const auto& runs = document_.plan()->trims.runs;
    return run_ >= 0 && run_ < static_cast<int>(runs.size()) ? &runs[static_cast<std::size_t>(run_)] : nullptr;
}

void EdgeView::takeRun(int run) {
    run_ = run;
    joint_ = {};
    refresh();
}

const AreaTrim* EdgeView::saidOfArea(const TrimRun& r) const {
    const Surface* owner = document_.job().surface(r.surface);
    for (const AreaTrim& a : document_.job().areaTrims)
        if (owner && a.area == owner->area && a.meeting == r.meeting) return &a;
    return nullptr;
}

void EdgeView::chooseEverywhere() {
    const TrimRun* r = run();
    const Surface* owner = r ? document_.job().surface(r->surface) : nullptr;
    if (!owner || r->side < 0) return;
    const AreaTrim* said = saidOfArea(*r);
    AreaTrim trim{owner->area, r->meeting, r->product};
    if (said && said->product == r->product) trim.product.clear();
    push(document_, chooseAreaTrim(document_, trim, r->surface, r->side));
}

QString EdgeView::takeGauge(const QString& typed) {
    const TrimRun* r = run();
    if (!r || r->side < 0 || joint_.run < 0) return {};
    std::optional<double> degrees;
    if (!typed.trimmed().isEmpty()) {
        const auto n = parseNumber(typed.trimmed().toStdString());
        if (!n) return sentence(n.error(), typed);
        constexpr double kLeast = 10, kMost = 350;
        if (n.value() < kLeast || n.value() > kMost)
            return tr("A corner is from %1 to %2 degrees.").arg(kLeast).arg(kMost);
        degrees = n.value();
    }
    push(document_, gaugeCorner(document_, r->surface, r->side, joint_.atEnd, degrees));
    return {};
}

/// Only at the ends of a side: what a joint within it is, its own line says.
void EdgeView::showGauge(const TrimRun* r, const TrimJoint* joint) {
    const bool last =
        r && joint && (joint_.atEnd ? joint_.piece + 1 == static_cast<int>(r->pieces.size()) : joint_.piece == 0);
    const bool corner = last && r->side >= 0 && joint->end != TrimEnd::Scarfed;
    gauge_->setVisible(corner);
    gaugeName_->setVisible(corner);
    if (!corner) return;
    const Surface* owner = document_.job().surface(r->surface);
    const Edge edge = owner ? owner->edge(r->side) : Edge{};
    const std::optional<double> said = joint_.atEnd ? edge.endDeg : edge.startDeg;
    const auto text = [&](double degrees) { return figures().number(degrees, 1); };
    gauge_->setFigure(said ? text(*said) : QString(), said ? QString::number(*said) : QString());
    gauge_->setPlaceholderText(joint->planRad > 0 ? text(joint->planRad * 57.29577951) : QString());
}

void EdgeView::takeJoint(const JointPlace& joint) {
    joint_ = joint;
    run_ = joint.run;
    refresh();
}

void EdgeView::stepJoint(int by) {
    const auto all = jointPlaces(*document_.plan(), document_.currentSurface());
    if (all.empty()) return;
    int at = -1;
    for (std::size_t i = 0; i < all.size(); ++i)
        if (all[i].first == joint_) at = static_cast<int>(i);
    const int n = static_cast<int>(all.size());
    takeJoint(all[static_cast<std::size_t>(at < 0 ? (by > 0 ? 0 : n - 1) : (at + by + n) % n)].first);
}

QString EdgeView::summary() const {
    int runs = 0;
    Mm total;
    for (const TrimRun& r : document_.plan()->trims.runs)
        if (!runLineOn(r, document_.job(), *document_.plan(), document_.currentSurface()).empty()) {
            ++runs;
            total = total + r.length;
        }
    return runs == 0
               ? tr("Nothing closes an edge of this surface yet. Say in Measure what its sides meet, and choose its "
                    "finish.")
               : tr("%n trim(s) close its edges, %1 together. Point at one, or at a joint.", nullptr, runs)
                     .arg(figures().length(total));
}

void EdgeView::refresh() {
    const Job& job = document_.job();
    const Plan& plan = *document_.plan();
    const Figures f = figures();
    const auto here = [&](const TrimRun& r) { return !runLineOn(r, job, plan, document_.currentSurface()).empty(); };
    if (run() && !here(*run())) run_ = -1;
    if (!jointAt(plan, joint_) || joint_.run != run_) joint_ = {};
    const TrimRun* r = run();
    QString line;
    if (r) {
        line = sentenceCase(runText(*r, job, f));
        if (r->surface != document_.currentSurface()) {
            const Surface* owner = job.surface(r->surface);
            line += tr(". Its joints stand with %1.").arg(owner ? QString::fromStdString(owner->name) : QString());
        }
    }
    runLine_->setText(line);
    runLine_->setVisible(r);
    choice_->setVisible(r && r->side >= 0);
    choice_->clear();
    if (r && r->side >= 0) {
        const Surface* owner = job.surface(r->surface);
        choice_->addItem(tr("by rule: %1").arg(profileText(r->profile)), QString());
        choice_->addItem(tr("no trim here"), QString::fromUtf8(kNoTrim.data(), static_cast<qsizetype>(kNoTrim.size())));
        for (const Product& p : job.catalogue.products)
            if (const ProductFamily* sold = productFamily(p.family); sold && sold->role == LayerRole::Trim)
                choice_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
        choice_->setCurrentIndex(
            std::max(0, choice_->findData(QString::fromStdString(owner ? owner->edge(r->side).trim : std::string()))));
    }
    everywhere_->setVisible(r && r->side >= 0 && !r->product.empty());
    if (r && r->side >= 0) {
        const Surface* owner = job.surface(r->surface);
        const QString where = owner && (owner->area.kind != AreaKind::Unsaid || !owner->area.name.empty())
                                  ? areaText(owner->area)
                                  : tr("surfaces of no area");
        const AreaTrim* said = saidOfArea(*r);
        everywhere_->setText(said && said->product == r->product ? tr("By rule again: %1").arg(where)
                                                                 : tr("So at all such edges: %1").arg(where));
    }
    filler_->setVisible(r && r->filler);
    if (r && r->filler) {
        QStringList stops;
        for (std::size_t i = 0; i < r->filler->at.size(); ++i)
            stops << tr("%1 at %2").arg(f.fineLength(r->filler->wide[i]), f.length(r->filler->at[i], false));
        filler_->setText(tr("Tapered filler behind it, ripped at %1°: %2.")
                             .arg(f.number(r->filler->ripRad * 57.29577951, 2), stops.join(QStringLiteral(", "))));
    }
    const TrimJoint* joint = jointAt(plan, joint_);
    QString title;
    if (joint) {
        const TrimPiece& piece = r->pieces[static_cast<std::size_t>(joint_.piece)];
        title = tr("Piece %1, %2, %3 end: %4")
                    .arg(QString::fromStdString(piece.name), f.fineLength(piece.length),
                         joint_.atEnd ? tr("right") : tr("left"), jointTitle(*joint));
    }
    if (joint) {
        const TrimPiece& piece = r->pieces[static_cast<std::size_t>(joint_.piece)];
        QStringList at;
        for (const Point& d : piece.drills) at << f.length({d.x}, false);
        if (!at.isEmpty())
            title += tr(". Drilled to size over the panels' holes, from its left end at %1")
                         .arg(at.join(QStringLiteral(", ")));
    }
    jointTitle_->setText(title);
    jointText_->setText(joint ? jointText(*joint, f) : QString());
    const Product* over = joint && joint->run >= 0 && joint->run < static_cast<int>(plan.trims.runs.size())
                              ? job.catalogue.find(plan.trims.runs[static_cast<std::size_t>(joint->run)].product)
                              : nullptr;
    showGauge(r, joint);
    saw_->show(job, joint, joint_.atEnd, over);
    bench_->marks = {.joints = true, .runInHand = run_, .jointInHand = joint_};
    bench_->update();
}

} // namespace westrum
