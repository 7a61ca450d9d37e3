#include "app/stages/newvan/new_van_page.h"

#include "app/drawing/plan_view.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "core/shell/unfold.h"
#include "formats/demo.h"
#include "formats/words.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>
#include <QVBoxLayout>

namespace westrum {

/// The ghosts as they will lie on the map.
class NewVanPage::Preview : public QWidget {
public:
    explicit Preview(QWidget* parent = nullptr) : QWidget(parent) {
        setMinimumSize(320, 320);
        setAccessibleName(NewVanPage::tr("The unfolded van to be measured"));
    }
    void show(const std::vector<Surface>& surfaces) {
        surfaces_ = surfaces;
        update();
    }

protected:
    void paintEvent(QPaintEvent*) override {
        if (surfaces_.empty()) return;
        const Theme& t = Theme::now();
        std::vector<Flap> flaps;
        for (const Surface& s : surfaces_) flaps.push_back(flapOf(s, {}));
        const std::vector<Unfolded> places = unfold(flaps, (width() - 16.0) / std::max(60.0, height() - 16.0));
        std::vector<Ring> rings;
        for (std::size_t i = 0; i < flaps.size(); ++i) {
            Ring ring;
            for (Point p : flaps[i].frame) ring.push_back(places[i].map(p));
            rings.push_back(std::move(ring));
        }
        const PlanView v(extentOf(flaps, places), QRectF(rect()).adjusted(8, 8, -8, -8));
        QPainter p(this);
        p.setRenderHint(QPainter::Antialiasing);
        for (std::size_t i = 0; i < rings.size(); ++i) {
            p.setPen(QPen(t.muted, 1.2, Qt::DashLine));
            p.setBrush(Qt::NoBrush);
            p.drawPath(v.path(rings[i]));
            const QRectF box = v.path(rings[i]).boundingRect().adjusted(3, 1, -3, -1);
            p.setFont(textFont(0.75));
            const QString name = QString::fromStdString(surfaces_[i].name);
            p.setPen(t.graphite);
            if (QFontMetricsF(p.font()).horizontalAdvance(name) < box.width() &&
                QFontMetricsF(p.font()).height() < box.height())
                p.drawText(box, Qt::AlignCenter, name);
        }
    }

private:
    std::vector<Surface> surfaces_;
};

NewVanPage::NewVanPage(Workshop& workshop, char decimalMark, QWidget* parent)
    : QWidget(parent),
      workshop_(workshop),
      decimalMark_(decimalMark),
      bodies_(bodiesRow()),
      doorLeft_(new QCheckBox(tr("the sliding door is on the left"))),
      sentence_(new QLabel),
      preview_(new Preview),
      back_(new QPushButton(tr("Back to the open job"))) {
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(24, 12, 24, 12);
    column->setSpacing(8);
    auto* heading = new QLabel(tr("A new van"));
    heading->setFont(textFont(1.5, true));
    column->addWidget(heading);
    sentence_->setFont(textFont(1.08));
    sentence_->setWordWrap(true);
    sentence_->setTextFormat(Qt::PlainText);
    sentence_->setObjectName(QStringLiteral("newVanSentence"));
    column->addWidget(sentence_);
    column->addWidget(bodies_);
    auto* middle = new QHBoxLayout;
    middle->setSpacing(28);
    middle->addLayout(figuresGrid());
    middle->addWidget(preview_, 1);
    column->addLayout(middle, 1);
    column->addLayout(buttonsRow());
}

QLayout* NewVanPage::figuresGrid() {
    auto* grid = new QGridLayout;
    grid->setVerticalSpacing(5);
    const QStringList labels{tr("length inside, along the floor"),
                             tr("width at the floor"),
                             tr("height, floor to ceiling"),
                             tr("camber of the roof"),
                             tr("wheel arches: long"),
                             tr("wheel arches: high"),
                             tr("wheel arches: deep"),
                             tr("sliding door: wide"),
                             tr("sliding door: high"),
                             tr("rear doors: wide, both"),
                             tr("rear doors: high")};
    int row = 0;
    for (const BodyField& field : bodyFields()) {
        auto* entry = new EntryField([this, &field](const QString& typed) -> QString {
            const auto length = parseLength(typed.toStdString(), unit_);
            if (!length) return westrum::sentence(length.error(), typed);
            if (length.value().value < field.least || length.value().value > field.most) {
                const Figures f{.unit = unit_, .decimalMark = decimalMark_};
                return tr("%1 is not possible here; between %2 and %3 is.")
                    .arg(f.length(length.value()), f.length({field.least}), f.length({field.most}));
            }
            figures_.*field.figure = length.value();
            refresh();
            return {};
        });
        entry->setObjectName(QStringLiteral("body-") + QString::fromLatin1(field.key));
        entry->setAccessibleName(labels[row]);
        entry->setAlignment(Qt::AlignRight);
        entry->setFixedWidth(130);
        connect(entry, &EntryField::problemChanged, this, [this](const QString& why) {
            if (why.isEmpty())
                refresh();
            else
                say(why, true);
        });
        auto* label = new QLabel(labels[row]);
        label->setTextFormat(Qt::PlainText);
        grid->addWidget(label, row, 0);
        grid->addWidget(entry, row, 1);
        fields_.push_back(entry);
        ++row;
    }
    grid->addWidget(doorLeft_, row++, 0, 1, 2);
    doorLeft_->setObjectName(QStringLiteral("body-slidingDoorLeft"));
    connect(doorLeft_, &QCheckBox::toggled, this, [this](bool left) {
        figures_.slidingDoorLeft = left;
        refresh();
    });
    grid->setRowStretch(row, 1);
    return grid;
}

QWidget* NewVanPage::bodiesRow() {
    auto* bar = new QWidget;
    auto* row = new FlowRow;
    bar->setLayout(row);
    row->setContentsMargins(0, 0, 0, 0);
    row->addWidget(new QLabel(tr("A body of this make was measured before:")));
    body_ = new QComboBox;
    body_->setObjectName(QStringLiteral("earlierBody"));
    body_->setAccessibleName(tr("Earlier body"));
    row->addWidget(body_);
    auto* start = new QPushButton(tr("Start from it"));
    start->setObjectName(QStringLiteral("startFromBody"));
    row->addWidget(start);
    connect(start, &QPushButton::clicked, this, &NewVanPage::fromEarlierBody);
    return bar;
}

void NewVanPage::fromEarlierBody() {
    const std::string name = body_->currentData().toString().toStdString();
    for (const BodyShape& b : workshop_.book().bodies) {
        if (b.name != name) continue;
        const auto shell = readJob(QByteArray::fromStdString(b.shell));
        if (!shell) return say(tr("That body cannot be read: %1").arg(westrum::sentence(shell.error().front())), true);
        Job job = fromBody(
            shell.value(),
            newVanJob(tr("New van").toStdString(), starterCatalogue(), Currency{}, shell.value().surfaces), b.name);
        job.bareUnit = job.shownUnit = unit_;
        emit laidOut(job);
        return;
    }
}

QLayout* NewVanPage::buttonsRow() {
    auto* buttons = new QHBoxLayout;
    auto* layOut = new QPushButton(tr("Lay out the whole van"));
    layOut->setObjectName(QStringLiteral("layOutVan"));
    auto* floorOnly = new QPushButton(tr("Just one floor"));
    floorOnly->setObjectName(QStringLiteral("justAFloor"));
    back_->setObjectName(QStringLiteral("backToJob"));
    buttons->addWidget(layOut);
    buttons->addWidget(floorOnly);
    buttons->addWidget(back_);
    buttons->addStretch(1);
    connect(layOut, &QPushButton::clicked, this, [this] {
        Job job = newVanJob(tr("New van").toStdString(), starterCatalogue(), Currency{}, surfaces());
        job.access = accessOf(figures_, tr("sliding door").toStdString(), tr("rear doors").toStdString());
        job.bareUnit = job.shownUnit = unit_;
        emit laidOut(job);
    });
    connect(floorOnly, &QPushButton::clicked, this, [this] {
        Job job = newJob(tr("New van").toStdString(), tr("Floor").toStdString(), starterCatalogue(), Currency{});
        job.bareUnit = job.shownUnit = unit_;
        emit laidOut(job);
    });
    connect(back_, &QPushButton::clicked, this, &NewVanPage::goBack);
    return buttons;
}

void NewVanPage::begin(LengthUnit unit, bool canGoBack) {
    unit_ = unit == LengthUnit::Foot ? LengthUnit::Inch : unit;
    back_->setVisible(canGoBack);
    body_->clear();
    for (const BodyShape& b : workshop_.book().bodies)
        body_->addItem(tr("%1, %n surface(s)", nullptr, b.surfaces).arg(QString::fromStdString(b.name)),
                       QString::fromStdString(b.name));
    bodies_->setVisible(body_->count() > 0);
    refresh();
    fields_.front()->setFocus();
}

std::vector<Surface> NewVanPage::surfaces() const {
    return surfacesOf(figures_,
                      [](SurfaceKind kind, Hand hand, int n) { return surfaceName(kind, hand, n).toStdString(); });
}

void NewVanPage::say(const QString& text, bool attention) {
    sentence_->setText(text);
    sentence_->setStyleSheet(attention ? QStringLiteral("color: %1;").arg(css(Theme::now().pencil)) : QString());
}

void NewVanPage::refresh() {
    const Figures f{.unit = unit_, .decimalMark = decimalMark_};
    for (std::size_t i = 0; i < fields_.size(); ++i) {
        const QString shown = f.fineLength(figures_.*bodyFields()[i].figure, false);
        fields_[i]->setFigure(shown, shown);
    }
    const std::vector<Surface> all = surfaces();
    preview_->show(all);
    say(tr("A few rough figures lay out %n surface(s) as ghosts, in their places and with names. Measure them one by "
           "one "
           "afterwards.",
           nullptr, static_cast<int>(all.size())),
        false);
}

} // namespace westrum
