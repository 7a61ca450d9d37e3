#include "app/stages/setout/set_out_page.h"

#include "app/document/commands.h"
#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"
#include "app/widgets/flow_row.h"
#include "app/widgets/gesture.h"
#include "core/catalogue/hard_finishes.h"
#include "core/catalogue/plank.h"
#include "core/families/family.h"
#include "core/plan/layer_request.h"
#include "core/setout/lamp_rows.h"
#include "core/setout/lining.h"
#include "core/setout/plank_floor.h"
#include "formats/base_words.h"

#include <QAbstractItemView>
#include <QHBoxLayout>
#include <QShortcut>

#include <algorithm>

namespace westrum {

SetOutPage::SetOutPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      doIt_(new QPushButton(tr("Do it"))),
      next_(new QPushButton(tr("Another way"))),
      finish_(new QComboBox),
      layers_(new QComboBox),
      trim_(new QComboBox),
      editProduct_(new QPushButton(tr("Product…"))),
      editRules_(new QPushButton(tr("How laid…"))),
      lamps_(new QPushButton(tr("Lamps onto rows"))),
      freeJoints_(new QPushButton(tr("Joints as suggested"))),
      relief_(new QPushButton(tr("Relief cut"))),
      forms_(new QVBoxLayout),
      bench_(new SetOutBench(document, decimalMark)),
      cushion_(new CushionPicture),
      edges_(new EdgeView(document, decimalMark)),
      showEdges_(new QPushButton(tr("Edges"))),
      base_(new BaseView(document, decimalMark)),
      showBase_(new QPushButton(tr("Base"))),
      figures_(new QLabel),
      strip_(new StartStrip),
      roll_(new RollStrip(document, decimalMark)) {
    doIt_->setObjectName(QStringLiteral("doIt"));
    next_->setObjectName(QStringLiteral("anotherWay"));
    doIt_->setToolTip(tr("Ctrl+Return"));
    next_->setToolTip(tr("Ctrl+Space"));
    sentenceRow()->addWidget(doIt_, 0, Qt::AlignTop);
    sentenceRow()->addWidget(next_, 0, Qt::AlignTop);
    connect(doIt_, &QPushButton::clicked, this, &SetOutPage::takeSuggestion);
    connect(next_, &QPushButton::clicked, this, [this] {
        ++suggestion_;
        refresh();
    });
    const auto key = [this](const QKeySequence& keys, QPushButton* button) {
        auto* shortcut = new QShortcut(keys, this);
        shortcut->setContext(Qt::WidgetWithChildrenShortcut);
        connect(shortcut, &QShortcut::activated, button, [button] {
            if (button->isVisible() && button->isEnabled()) button->click();
        });
    };
    key(Qt::CTRL | Qt::Key_Return, doIt_);
    key(Qt::CTRL | Qt::Key_Space, next_);

    auto* row = new FlowRow;
    layers_->setObjectName(QStringLiteral("layerInHand"));
    layers_->setAccessibleName(tr("Layer in hand"));
    layers_->setToolTip(tr("Which layer of the surface is set out here"));
    finish_->setObjectName(QStringLiteral("product"));
    finish_->setAccessibleName(tr("Finish"));
    trim_->setObjectName(QStringLiteral("trim"));
    trim_->setAccessibleName(tr("Trim along the edges"));
    trim_->setToolTip(tr("What closes the edges: one trim for all, or edge by edge by what meets there; see Edges"));
    connect(trim_, &QComboBox::activated, this, [this](int index) {
        push(document_, chooseTrim(document_, surfaceId(), trim_->itemData(index).toString().toStdString()));
    });
    for (QComboBox* box : {layers_, finish_, trim_}) {
        row->addWidget(box);
    }
    connect(layers_, &QComboBox::activated, this,
            [this](int index) { document_.setCurrentLayer(layers_->itemData(index).toInt()); });
    connect(finish_, &QComboBox::activated, this, [this](int index) {
        const std::string id = finish_->itemData(index).toString().toStdString();
        const int at = document_.currentLayer();
        const Finish& f = document_.job().finish(surfaceId());
        // Another layer than the seen one is replaced where it lies.
        if (!id.empty() && at >= 0 && at != faceLayer(f, document_.job().catalogue))
            push(document_, replaceLayer(document_, surfaceId(), at, id));
        else
            push(document_, chooseProduct(document_, surfaceId(), id));
    });
    auto* neighbours = new QPushButton(tr("Neighbours"));
    neighbours->setCheckable(true);
    neighbours->setObjectName(QStringLiteral("neighbours"));
    neighbours->setToolTip(tr("Lays what it meets beside it, to see lines run through"));
    connect(neighbours, &QPushButton::toggled, bench_, &SetOutBench::showNeighbours);
    editProduct_->setObjectName(QStringLiteral("editProduct"));
    editRules_->setObjectName(QStringLiteral("editRules"));
    lamps_->setObjectName(QStringLiteral("lampsOntoRows"));
    freeJoints_->setObjectName(QStringLiteral("freeJoints"));
    relief_->setObjectName(QStringLiteral("reliefCut"));
    relief_->setToolTip(
        tr("Cuts in from the edge, so that the lining lies on a double curve. Drag its ends; Delete takes "
           "the one in hand away"));
    connect(relief_, &QPushButton::clicked, bench_, &SetOutBench::addRelief);
    for (QPushButton* button : {editProduct_, editRules_}) {
        button->setCheckable(true);
        connect(button, &QPushButton::toggled, this, [this] { refreshForms(); });
    }
    connect(lamps_, &QPushButton::clicked, this, &SetOutPage::lampsOntoRows);
    connect(freeJoints_, &QPushButton::clicked, this, [this] {
        push(document_, moveJoints(document_, surfaceId(), {}, nextGesture(), document_.currentLayer()));
    });
    showEdges_->setCheckable(true);
    showEdges_->setObjectName(QStringLiteral("edges"));
    showEdges_->setToolTip(tr("What closes its edges, and how the saw is set for every end"));
    connect(showEdges_, &QPushButton::toggled, this, [this] { refresh(); });
    showBase_->setCheckable(true);
    showBase_->setObjectName(QStringLiteral("base"));
    showBase_->setToolTip(tr("What it hangs on: fixings, battens, packers, and how near openings come to them"));
    connect(showEdges_, &QPushButton::toggled, this, [this](bool on) {
        if (on) showBase_->setChecked(false);
    });
    connect(showBase_, &QPushButton::toggled, this, [this](bool on) {
        if (on) showEdges_->setChecked(false);
        refresh();
    });
    for (QPushButton* button :
         {editProduct_, editRules_, lamps_, freeJoints_, relief_, neighbours, showEdges_, showBase_})
        row->addWidget(button);
    for (QPushButton* button : {lamps_, freeJoints_, relief_}) button->hide(); // until there is something to do
    column()->addLayout(row);
    column()->addLayout(forms_);
    auto* benches = new QHBoxLayout;
    benches->addWidget(bench_, 1);
    benches->addWidget(cushion_);
    cushion_->hide();
    benches->addWidget(edges_, 1);
    benches->addWidget(base_, 1);
    base_->hide();
    connect(base_, &BaseView::turned, this, [this] { refreshSentence(surfacePlan(), figures()); });
    connect(edges_, &EdgeView::problem, this, &SetOutPage::answer);
    connect(base_, &BaseView::problem, this, [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
        problem_.clear();
    });
    column()->addLayout(benches, 1);
    edges_->hide();
    figures_->setObjectName(QStringLiteral("setOutFigures"));
    figures_->setTextFormat(Qt::PlainText);
    figures_->setWordWrap(true);
    column()->addWidget(figures_);
    column()->addWidget(strip_);
    column()->addWidget(roll_);
    roll_->hide();

    connect(bench_, &SetOutBench::startMoved, this, &SetOutPage::moveStart);
    connect(strip_, &StartStrip::startMoved, this, &SetOutPage::moveStart);
    connect(bench_, &SetOutBench::columnMoved, this, [this](Mm offset, int gesture) {
        push(document_, moveStartColumn(document_, surfaceId(), offset, gesture, document_.currentLayer()));
    });
    connect(bench_, &SetOutBench::jointsMoved, this, [this](const std::vector<double>& joints, int gesture) {
        push(document_, moveJoints(document_, surfaceId(), joints, gesture, document_.currentLayer()));
    });
    connect(bench_, &SetOutBench::reliefsMoved, this, [this](const std::vector<ReliefCut>& reliefs, int gesture) {
        push(document_, moveReliefs(document_, surfaceId(), reliefs, gesture, document_.currentLayer()));
    });
    connect(bench_, &SetOutBench::allowanceMoved, this, [this](const std::string& rule, Mm to, int gesture) {
        push(document_, moveAllowance(document_, surfaceId(), rule, to, gesture, document_.currentLayer()));
    });
    connect(bench_, &SetOutBench::taperMoved, this, [this](int boards) {
        push(document_, setRule(document_, surfaceId(), "taperBoards", boards, document_.currentLayer()));
    });
    connect(bench_, &SetOutBench::lampMoved, this, &SetOutPage::moveLamp);
    connect(bench_, &SetOutBench::piecePointed, this, [this] { refresh(); });
    connect(&document_, &JobDocument::startsComputed, this, [this] {
        if (isVisible()) refresh();
    });
    connect(&document_, &JobDocument::startsProgress, this, [this](double share) {
        progress_ = share;
        if (isVisible() && document_.starts()->suggestions.empty()) refresh();
    });
    connect(&document_, &JobDocument::currentSurfaceChanged, this, [this] {
        suggestion_ = 0;
        problem_.clear();
    });
}

const Layer* SetOutPage::layer() const {
    const int at = document_.currentLayer();
    return at < 0 ? nullptr : &document_.job().finish(surfaceId()).layers[static_cast<std::size_t>(at)];
}

const LayerPlan* SetOutPage::layerPlan() const {
    const SurfacePlan* plan = surfacePlan();
    const int at = document_.currentLayer();
    const Layer* l = layer();
    if (!plan || !l || at >= static_cast<int>(plan->layers.size())) return nullptr;
    // While planning is under way, the plan may still be of another option.
    const LayerPlan& p = plan->layers[static_cast<std::size_t>(at)];
    return p.product == l->product ? &p : nullptr;
}

const Product* SetOutPage::product() const {
    const Layer* l = layer();
    return l ? document_.job().catalogue.find(l->product) : nullptr;
}

void SetOutPage::moveStart(Mm offset, int gesture) {
    push(document_, moveStartLine(document_, surfaceId(), offset, gesture, document_.currentLayer()));
}

void SetOutPage::moveLamp(int index, Point centre) {
    const Surface* s = surface();
    const SurfacePlan* plan = surfacePlan();
    if (!s || !plan || index >= static_cast<int>(s->openings.size())) return;
    Opening o = s->openings[static_cast<std::size_t>(index)];
    if (!o.width) return;
    const double width = o.width->length.value, height = o.height ? o.height->length.value : width;
    const auto at = distancesOf(o.place, centre, width, height, plan->measured);
    if (!at) return;
    const auto reading = [&](Mm mm) {
        mm.value = std::round(mm.value * 10) / 10;
        return Reading{figures().fineLength(mm).toStdString(), mm};
    };
    o.place.fromSide = reading(at->fromSide);
    o.place.fromCross = reading(at->fromCross);
    push(document_, changeOpening(document_, surfaceId(), index, std::move(o)));
}

void SetOutPage::lampsOntoRows() {
    const SurfacePlan* plan = surfacePlan();
    const LayerPlan* l = layerPlan();
    const Surface* s = surface();
    if (!plan || !l || !s) return;
    const auto along = l->setOut.rowsAcross ? plan->shape.visibleCentreY : plan->shape.visibleCentreX;
    const std::vector<LampPlace> places = lampsOnRows(l->setOut, openingFacts(*s, plan->shape), along);
    document_.undoStack().beginMacro(tr("Lamps onto rows"));
    for (const LampPlace& p : places) moveLamp(p.opening, p.centre);
    document_.undoStack().endMacro();
}

void SetOutPage::takeSuggestion() {
    if (settles_) {
        if (Command command = takeFix(document_, *settles_)) push(document_, std::move(command));
        return;
    }
    const auto& all = document_.starts()->suggestions;
    if (all.empty()) return;
    const StartChoice& c = all[suggestion_ % all.size()].choice;
    push(document_, setRules(document_, surfaceId(), c.change, document_.currentLayer()));
}

void SetOutPage::saySuggestion() {
    const auto starts = document_.starts();
    const LayerPlan* plan = layerPlan();
    const bool offered = !starts->suggestions.empty() && plan && plan->setOut.laid();
    doIt_->setVisible(offered);
    next_->setVisible(offered && starts->suggestions.size() > 1);
    if (!offered) {
        say(!layer() ? tr("No finish is chosen for this surface. Choose one here, or layer by layer in Build-up.")
            : document_.isSettled() ? QString()
                                    : tr("Working out every way to lay it … %1").arg(figures().percent(progress_)));
        return;
    }
    const Suggestion& s = starts->suggestions[suggestion_ % starts->suggestions.size()];
    if (s.choice.change.size() == 1 && s.choice.change.contains("startOffset")) { // the start line and nothing else
        const Mm now = plan->setOut.startOffset;
        say(startText(s, now, starts->unitsPerPack, figures()));
        doIt_->setEnabled(std::abs(s.choice.startOffset.value - now.value) >= 0.5);
        return;
    }
    const SetOutFamily* family = findFamily(plan->family);
    say(suggestionText(s, plan->setOut, plan->family, layer()->rules, starts->unitsPerPack, figures()));
    doIt_->setEnabled(!changeText(s.choice.change, layer()->rules, family->ruleFields, figures()).isEmpty());
}

QString SetOutPage::figuresText(const LayerPlan& plan) const {
    const Figures f = figures();
    const SetOut& s = plan.setOut;
    const Judgement& j = s.figures;
    const Family& family = *familyOf(plan.family);
    QStringList said;
    if (bench_->pieceInHand() >= 0 && bench_->pieceInHand() < static_cast<int>(s.pieces.size())) {
        const int piece = bench_->pieceInHand();
        said << tr("Piece %1, %2 wide")
                    .arg(stepPiece(s, piece, plan.family, f),
                         f.fineLength(s.pieces[static_cast<std::size_t>(piece)].width));
    }
    if (!family.product.rowField.empty())
        said << tr("edges %1 and %2").arg(f.fineLength(s.firstRow), f.fineLength(s.lastRow));
    said << tr("%n piece(s)", nullptr, j.pieces);
    if (family.laid.seams) {
        Mm seams;
        for (const Joint& joint : s.joints) seams = seams + Mm{distance(joint.from, joint.to)};
        if (!s.joints.empty())
            said << tr("%n seam(s), %1 in all, %2 of it seen", nullptr, static_cast<int>(s.joints.size()))
                        .arg(f.length(seams), f.length(j.offCentre));
    } else if (!s.joints.empty()) {
        said << tr("%n joint(s)", nullptr, static_cast<int>(s.joints.size()));
        if (j.jointsOffSupport > 0) said << tr("%n off support", nullptr, j.jointsOffSupport);
        if (j.jointsInLine > 0) said << tr("%n in line", nullptr, j.jointsInLine);
    }
    if (s.centreLine && family.laid.centred) said << tr("%1 off centre").arg(f.fineLength(j.offCentre));
    if (j.slivers > 0) said << tr("%n sliver(s)", nullptr, j.slivers);
    said << (family.laid.blade ? tr("%1 to cut") : tr("%1 to saw")).arg(f.run(j.cutLength, 1));
    QString stock = tr("about %1").arg(itemsText(plan.family, j.stock, f));
    if (plan.purchase) stock = itemsText(plan.family, j.stock, f);
    if (stockFormOf(plan.family) == StockForm::Roll) stock = tr("alone %1").arg(itemsText(plan.family, j.stock, f));
    if (j.leastStock > 0 && stockFormOf(plan.family) != StockForm::Roll)
        stock += tr(", no way with fewer than %1").arg(j.leastStock);
    said << stock;
    for (const Sundry& each : s.sundries) said << sundryText(each, f);
    for (const SeatPlan& seat : document_.plan()->seats) {
        if (seat.surface != surfaceId() || !family.laid.seat) continue;
        said << (seat.above ? tr("one sits %1 over the floor, %2 below the ceiling")
                                  .arg(f.length(seat.height), f.length(*seat.above))
                            : tr("one sits %1 over the floor").arg(f.length(seat.height)));
    }
    if (j.linesMissed > 0) said << tr("lines miss %n neighbour(s)", nullptr, j.linesMissed);
    if (!s.cutouts.empty()) {
        const Cutout& c = s.cutouts.front();
        said << tr("%1 × %2 sawn out serves again").arg(f.length(c.length, false), f.length(c.width, false));
    }
    return sentenceCase(said.join(QStringLiteral("  ·  ")));
}

void SetOutPage::refreshLists() {
    const Job& job = document_.job();
    const Finish& finish = job.finish(surfaceId());
    layers_->clear();
    for (std::size_t i = 0; i < finish.layers.size(); ++i)
        if (const Product* p = job.catalogue.find(finish.layers[i].product); p && findFamily(p->family))
            layers_->addItem(static_cast<int>(i) == faceLayer(finish, job.catalogue)
                                 ? tr("seen: %1").arg(QString::fromStdString(p->name))
                                 : tr("below: %1").arg(QString::fromStdString(p->name)),
                             static_cast<int>(i));
    layers_->setVisible(layers_->count() > 1);
    layers_->setCurrentIndex(layers_->findData(document_.currentLayer()));
    finish_->clear();
    finish_->addItem(tr("no finish"), QString());
    for (const SetOutFamily& family : setOutFamilies()) {
        bool first = true;
        for (const Product& p : job.catalogue.products) {
            if (p.family != family.id) continue;
            if (first) finish_->insertSeparator(finish_->count());
            first = false;
            finish_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
        }
    }
    trim_->clear();
    trim_->addItem(tr("trims by rule"), QString());
    trim_->addItem(tr("no trim"), QString::fromUtf8(kNoTrim.data(), static_cast<qsizetype>(kNoTrim.size())));
    for (const Product& p : job.catalogue.products)
        if (const ProductFamily* f = productFamily(p.family); f && f->role == LayerRole::Trim)
            trim_->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
    trim_->setCurrentIndex(trim_->findData(QString::fromStdString(finish.trim)));
    const Layer* l = layer();
    finish_->setCurrentIndex(l ? finish_->findData(QString::fromStdString(l->product)) : 0);
    for (QComboBox* box : {layers_, finish_, trim_}) {
        // As wide as the name that is chosen, its list as wide as the longest: each is read to its end.
        constexpr int kArrow = 52;
        int widest = 0;
        for (int i = 0; i < box->count(); ++i)
            widest = std::max(widest, box->fontMetrics().horizontalAdvance(box->itemText(i)));
        box->setFixedWidth(box->fontMetrics().horizontalAdvance(box->currentText()) + kArrow);
        box->view()->setMinimumWidth(widest + kArrow);
    }
}

void SetOutPage::refreshForms() {
    const Product* p = product();
    const SetOutFamily* family = p ? findFamily(p->family) : nullptr;
    editProduct_->setVisible(family);
    editRules_->setVisible(family);
    const auto note = [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
    };
    if (family && soldFamily_ != family->id) { // each family has fields of its own
        delete sold_;
        soldFamily_ = family->id;
        sold_ =
            new ProductPanel(document_, decimalMark_, soldFamily_,
                             {[this] { return layer() ? layer()->product : std::string(); },
                              [this](const std::string& id) {
                                  push(document_, replaceLayer(document_, surfaceId(), document_.currentLayer(), id));
                              },
                              QString()});
        sold_->choice()->setParent(sold_);
        sold_->choice()->hide();
        sold_->setObjectName(QStringLiteral("soldPanel"));
        connect(sold_, &ProductPanel::problem, this, note);
        forms_->addWidget(sold_);
    }
    if (family && rulesFamily_ != family->id) {
        delete rules_;
        rulesFamily_ = family->id;
        rules_ = new FieldForm(
            family->ruleFields, {"startOffset", "columnOffset"}, 3, [this] { return document_.job().bareUnit; },
            [this](const std::string& key, double value) {
                push(document_, setRule(document_, surfaceId(), key, value, document_.currentLayer()));
            });
        rules_->setObjectName(QStringLiteral("rulesForm"));
        connect(rules_, &FieldForm::problem, this, note);
        forms_->addWidget(rules_);
        delete fixes_;
        fixes_ = new FieldForm(
            fixingRules(family->id), {}, 3, [this] { return document_.job().bareUnit; },
            [this](const std::string& key, double value) {
                push(document_, setRule(document_, surfaceId(), key, value, document_.currentLayer()));
            });
        fixes_->setObjectName(QStringLiteral("fixesForm"));
        connect(fixes_, &FieldForm::problem, this, note);
        forms_->addWidget(fixes_);
    }
    if (sold_) sold_->setVisible(family && editProduct_->isChecked());
    if (rules_) rules_->setVisible(family && editRules_->isChecked());
    if (fixes_) fixes_->setVisible(family && editRules_->isChecked() && !fixingRules(family->id).empty());
    if (!family) return;
    sold_->refresh();
    rules_->showValues(layer()->rules, figures());
    fixes_->showValues(layer()->rules, figures());
}

QString SetOutPage::headingDetail(const Figures& f) const {
    const Product* p = product();
    const LayerPlan* plan = layerPlan();
    if (!p) return {};
    QString detail = QString::fromStdString(p->name);
    if (const Family* family = familyOf(p->family); family && family->laid.floats) {
        const auto rules = family->setOut->ruleFields;
        detail = tr("planks %1 × %2 × %3, %4, %5 movement gap")
                     .arg(f.fineLength({figureOf(*p, "length")}, false), f.fineLength({rowModuleOf(*p).value}, false),
                          f.fineLength(thicknessOf(*p), false),
                          valueOf(layer()->rules, rules, "direction") != 0 ? tr("across the van") : tr("along the van"),
                          f.fineLength({valueOf(layer()->rules, rules, "gap")}));
    }
    if (plan && plan->setOut.laid() && plan->setOut.module > 0)
        detail +=
            tr("; %1 in %2 rows").arg(itemsText(p->family, plan->setOut.figures.stock)).arg(plan->setOut.rows.size());
    return detail;
}

/// Of what is remarked on the base the first, with its fix; else what the base says of itself.
void SetOutPage::refreshBaseSentence(const SurfacePlan& whole, const Figures& f) {
    doIt_->hide();
    next_->hide();
    for (const Remark& r : whole.remarks) {
        const QString said = baseSentence(r, f);
        if (said.isEmpty() || r.severity == Severity::Note) continue;
        say(said, true);
        if (const QString fix = fixText(document_.job(), r, f); !fix.isEmpty()) {
            settles_ = r;
            doIt_->setText(fix);
            doIt_->setEnabled(true);
            doIt_->show();
        }
        return;
    }
    say(base_->summary());
}

/// What matters most, and the button that settles it.
void SetOutPage::refreshSentence(const SurfacePlan* whole, const Figures& f) {
    const bool edges = showEdges_->isChecked();
    const Remark* error = nullptr;
    if (whole)
        for (const Remark& r : whole->remarks)
            if (r.severity == Severity::Error && !error) error = &r;
    settles_.reset();
    doIt_->setText(tr("Do it"));
    const auto plain = [&](const QString& sentence, bool attention) {
        doIt_->hide();
        next_->hide();
        say(sentence, attention);
    };
    if (!problem_.isEmpty())
        plain(problem_, true);
    else if (!whole || !whole->measured.measured())
        plain(error ? sentence(*error, f) : tr("Measure the surface first: it is set out on its real shape."),
              error != nullptr);
    else if (edges)
        plain(edges_->summary(), false);
    else if (showBase_->isChecked())
        refreshBaseSentence(*whole, f);
    else if (error) {
        plain(sentence(*error, f), true);
        if (const QString fix = fixText(document_.job(), *error, f); !fix.isEmpty()) {
            settles_ = *error;
            doIt_->setText(fix);
            doIt_->setEnabled(true);
            doIt_->show();
        }
    } else
        saySuggestion();
}

void SetOutPage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const Figures f = figures();
    const Product* p = product();
    const LayerPlan* plan = layerPlan();
    const double module = p ? rowModuleOf(*p).value : 0;
    setHeading(QString::fromStdString(s->name), headingDetail(f));
    refreshLists();
    refreshForms();
    const bool laid = plan && plan->setOut.laid();
    const Family* family = plan ? familyOf(plan->family) : nullptr;
    bool lamp = false;
    for (const Opening& o : s->openings) lamp = lamp || o.kind == OpeningKind::Lamp;
    lamps_->setVisible(laid && family && family->laid.lampsOnRows && lamp);
    freeJoints_->setVisible(layer() && !layer()->joints.empty());
    const bool base = showBase_->isChecked() && !showEdges_->isChecked();
    relief_->setVisible(laid && family && family->laid.takesReliefs && !showEdges_->isChecked() && !base &&
                        family->laid.takesReliefs(layer()->rules));
    const bool edges = showEdges_->isChecked();
    const bool cushion = laid && !edges && !base && family && family->laid.seat;
    // What goes, goes first: beside each other they would widen the window.
    if (edges || base) bench_->hide();
    if (!cushion) cushion_->hide();
    if (!base) base_->hide();
    edges_->setVisible(edges);
    base_->setVisible(base);
    bench_->setVisible(!edges && !base);
    cushion_->setVisible(cushion);
    if (edges) edges_->refresh();
    if (base) base_->refresh();
    figures_->setVisible(laid && !edges && !base);
    if (laid) figures_->setText(figuresText(*plan));
    strip_->setVisible(module > 0 && !edges && !base);
    strip_->showStarts(document_.starts(), laid ? plan->setOut.startOffset : Mm{0}, module, f, document_.isSettled());
    const bool roll = p && stockFormOf(p->family) == StockForm::Roll && laid && !edges && !base;
    if (cushion) cushion_->show(plan->setOut, layer()->rules, *p);
    roll_->setVisible(roll);
    if (roll) roll_->showProduct(p->id);
    bench_->update();
    refreshSentence(surfacePlan(), f);
}

} // namespace westrum
