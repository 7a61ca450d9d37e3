#include "app/stages/buildup/build_up_page.h"

#include "app/document/commands.h"
#include "app/document/shell_commands.h"
#include "app/drawing/theme.h"

#include <QHBoxLayout>
#include <QLabel>

namespace westrum {
namespace {

/// Products by family, separated; `data` is the id.
void fillProducts(QComboBox* box, const Catalogue& catalogue) {
    for (const ProductFamily* each : productFamilies()) {
        const ProductFamily& family = *each;
        if (family.role == LayerRole::Trim || family.role == LayerRole::Sundry) continue;
        bool first = true;
        for (const Product& p : catalogue.products) {
            if (p.family != family.id) continue;
            if (first && box->count() > 0) box->insertSeparator(box->count());
            first = false;
            box->addItem(QString::fromStdString(p.name), QString::fromStdString(p.id));
        }
    }
}

} // namespace

BuildUpPage::BuildUpPage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      options_(new OptionsBox(document, decimalMark, this)),
      bench_(new SectionBench(document, decimalMark)),
      layer_(new BoundForm(document, decimalMark)),
      headroom_(new BoundForm(document, decimalMark)),
      add_(new QComboBox),
      copy_(new QComboBox),
      catalogueButton_(new QPushButton(tr("Catalogue…"))),
      catalogue_(new CataloguePanel(document, decimalMark)) {
    column()->addWidget(options_);
    column()->addWidget(bench_, 1);
    column()->addWidget(layer_);
    auto* row = new QHBoxLayout;
    row->setSpacing(8);
    add_->setObjectName(QStringLiteral("addLayer"));
    add_->setAccessibleName(tr("Add a layer"));
    copy_->setObjectName(QStringLiteral("copyBuildUp"));
    copy_->setAccessibleName(tr("Copy this build-up to another surface"));
    for (QComboBox* box : {add_, copy_}) {
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(22);
    }
    catalogueButton_->setCheckable(true);
    catalogueButton_->setObjectName(QStringLiteral("catalogue"));
    row->addWidget(add_, 2);
    row->addWidget(copy_, 2);
    row->addWidget(catalogueButton_);
    row->addStretch(1);
    column()->addLayout(row);
    column()->addWidget(headroom_);
    catalogue_->hide();
    column()->addWidget(catalogue_, 2);
    connect(catalogueButton_, &QPushButton::toggled, this, [this](bool on) {
        catalogue_->setVisible(on);
        for (QWidget* w : {static_cast<QWidget*>(bench_), static_cast<QWidget*>(layer_), static_cast<QWidget*>(add_),
                           static_cast<QWidget*>(copy_), static_cast<QWidget*>(options_)})
            w->setVisible(!on);
        if (on && bench_->layerInHand() >= 0) {
            const Finish& f = document_.job().finish(surfaceId());
            if (bench_->layerInHand() < static_cast<int>(f.layers.size()))
                catalogue_->take(f.layers[static_cast<std::size_t>(bench_->layerInHand())].product);
        }
        refresh();
    });
    const auto note = [this](const QString& sentence) {
        problem_ = sentence;
        saySomething();
    };
    connect(catalogue_, &CataloguePanel::said, this, note);
    connect(layer_, &BoundForm::problem, this, note);
    connect(headroom_, &BoundForm::problem, this, note);
    connect(add_, &QComboBox::activated, this, [this](int index) {
        const QString id = add_->itemData(index).toString();
        if (!id.isEmpty()) push(document_, addLayer(document_, surfaceId(), id.toStdString()));
    });
    connect(copy_, &QComboBox::activated, this, [this](int index) {
        const std::string to = copy_->itemData(index).toString().toStdString();
        if (to.empty()) return;
        push(document_, copyBuildUp(document_, surfaceId(), to));
        const Surface* s = document_.job().surface(to);
        problem_ = s ? tr("%1 has this build-up now.").arg(QString::fromStdString(s->name)) : QString();
        refresh();
    });
    connect(bench_, &SectionBench::picked, this, [this](int layer) {
        document_.setCurrentLayer(layer); // Set out shows the same one
        refreshLayer();
    });
    connect(bench_, &SectionBench::moved, this, [this](int layer, int to) {
        bench_->takeInHand(to);
        push(document_, moveLayer(document_, surfaceId(), layer, to));
    });
    connect(&document_, &JobDocument::currentSurfaceChanged, this, [this] { problem_.clear(); });
}

void BuildUpPage::refreshLayer() {
    const Finish& finish = document_.job().finish(surfaceId());
    int at = bench_->layerInHand();
    if (at >= static_cast<int>(finish.layers.size())) at = -1;
    if (at != bench_->layerInHand()) bench_->takeInHand(at);
    const std::string product = at < 0 ? std::string() : finish.layers[static_cast<std::size_t>(at)].product;
    const std::string key = surfaceId() + "/" + std::to_string(at) + "/" + product + "/" +
                            std::to_string(document_.job().catalogue.products.size());
    if (key == layerBuiltFor_) return layer_->refresh();
    layerBuiltFor_ = key;
    layer_->clear();
    if (at < 0) {
        layer_->words(finish.layers.empty() ? tr("No layer yet.")
                                            : tr("Point at a layer to change it; drag it to another place."));
        layer_->stretch();
        return;
    }
    const auto now = [this, at]() -> const Layer& {
        return document_.job().finish(surfaceId()).layers[static_cast<std::size_t>(at)];
    };
    const Product* p = document_.job().catalogue.find(product);
    const ProductFamily* family = p ? productFamily(p->family) : nullptr;
    // Products that do the same in a build-up, in the order of the catalogue.
    std::vector<std::string> ids;
    QStringList names;
    for (const Product& other : document_.job().catalogue.products) {
        const ProductFamily* f = productFamily(other.family);
        if (!f || (family && f->role != family->role)) continue;
        ids.push_back(other.id);
        names << QString::fromStdString(other.name);
    }
    if (!p) {
        ids.insert(ids.begin(), product);
        names.prepend(tr("not in the catalogue"));
    }
    layer_->choice(
        tr("layer"), QStringLiteral("layerProduct"), names,
        [ids, now] {
            const auto found = std::find(ids.begin(), ids.end(), now().product);
            return found == ids.end() ? -1 : static_cast<int>(found - ids.begin());
        },
        [this, ids, at](int index) {
            push(document_, replaceLayer(document_, surfaceId(), at, ids[static_cast<std::size_t>(index)]));
        });
    if (family)
        for (const Field& field : family->layerRules) addRule(field, at);
    layer_->flag(
        tr("bolts pass through"), QStringLiteral("bolted"), [now] { return now().bolted; },
        [this, at](bool on) { push(document_, setBolted(document_, surfaceId(), at, on)); });
    layer_->button(tr("Remove it"), QStringLiteral("removeLayer"), [this, at] {
        bench_->takeInHand(-1);
        push(document_, removeLayer(document_, surfaceId(), at));
    });
    layer_->stretch();
    layer_->refresh();
}

/// A rule of the layer in hand, with a field as its unit wants it.
void BuildUpPage::addRule(const Field& field, int at) {
    const auto value = [this, at, &field] {
        const auto& layers = document_.job().finish(surfaceId()).layers;
        return at < static_cast<int>(layers.size()) ? valueOf(layers[static_cast<std::size_t>(at)].rules, field) : 0;
    };
    const auto set = [this, at, &field](double to) {
        push(document_, setRule(document_, surfaceId(), std::string(field.key), to, at));
    };
    const QString name = fieldName(field.tradeName);
    const QString object =
        QStringLiteral("rule-") + QString::fromLatin1(field.key.data(), static_cast<qsizetype>(field.key.size()));
    switch (field.unit) {
    case FieldUnit::Length:
        layer_->length(
            name, object,
            [value]() -> MaybeReading {
                return Reading{{}, {value()}};
            },
            [set](const MaybeReading& r) { set(r ? r->length.value : 0); });
        break;
    case FieldUnit::Share:
        layer_->count(
            tr("%1, %").arg(name), object, static_cast<int>(field.least * 100), static_cast<int>(field.most * 100),
            [value] { return static_cast<int>(std::lround(value() * 100)); },
            [set](int percent) { set(percent / 100.0); });
        break;
    case FieldUnit::Litres:
        layer_->count(
            name, object, static_cast<int>(field.least), static_cast<int>(field.most),
            [value] { return static_cast<int>(std::lround(value())); }, [set](int litres) { set(litres); });
        break;
    default:
        layer_->flag(
            name, object, [value] { return value() != 0; }, [set](bool on) { set(on ? 1 : 0); });
        break;
    }
}

void BuildUpPage::buildHeadroom() {
    const Surface* s = surface();
    const bool wanted = s && (s->kind == SurfaceKind::Floor || s->kind == SurfaceKind::Ceiling);
    headroom_->setVisible(wanted && !catalogueButton_->isChecked());
    const std::string key = wanted ? "headroom" : "";
    if (key != headroomBuiltFor_) {
        headroomBuiltFor_ = key;
        headroom_->clear();
        if (wanted) {
            const auto length = [&](const QString& label, const char* name, MaybeReading Headroom::*which) {
                headroom_->length(
                    label, QString::fromLatin1(name), [this, which] { return document_.job().headroom.*which; },
                    [this, which](MaybeReading r) {
                        Headroom h = document_.job().headroom;
                        h.*which = std::move(r);
                        push(document_, setHeadroom(document_, std::move(h)));
                    });
            };
            length(tr("bare height: rear"), "headRear", &Headroom::rear);
            length(tr("middle"), "headMiddle", &Headroom::middle);
            length(tr("front"), "headFront", &Headroom::front);
            length(tr("tallest person"), "person", &Headroom::person);
            headroom_->stretch();
        }
    }
    if (wanted) headroom_->refresh();
}

void BuildUpPage::refreshChoices() {
    const Job& job = document_.job();
    add_->clear();
    add_->addItem(tr("Add a layer …"), QString());
    fillProducts(add_, job.catalogue);
    copy_->clear();
    copy_->addItem(tr("Copy to …"), QString());
    for (const Surface& s : job.surfaces)
        if (s.id != surfaceId()) copy_->addItem(QString::fromStdString(s.name), QString::fromStdString(s.id));
    copy_->setEnabled(!job.finish(surfaceId()).layers.empty());
}

void BuildUpPage::saySomething() {
    const Figures f = figures();
    const SurfacePlan* plan = surfacePlan();
    if (!problem_.isEmpty()) return say(problem_, false);
    if (!plan || plan->layers.empty())
        return say(tr("What goes onto this metal? Add layers from the metal inwards, or copy a build-up from a like "
                      "surface. All figures are defaults: the product's label goes before them."));
    for (const Remark& r : plan->stack.remarks) return say(sentence(r, f), true);
    const Surface* s = surface();
    QStringList said{tr("%1 thick").arg(f.fineLength(plan->stack.total))};
    if (plan->stack.grip.value > 0)
        said << tr("bolts grip %1 with %2 of metal and plate")
                    .arg(f.fineLength(plan->stack.grip + kMetalAndPlate), f.fineLength(kMetalAndPlate));
    if (s->kind == SurfaceKind::Ceiling || s->kind == SurfaceKind::Headliner)
        said << tr("lamps find %1 of depth, %2 where the insulation is cut away")
                    .arg(f.fineLength(plan->stack.lampDepth), f.fineLength(plan->stack.toMetal));
    QString text = said.join(QStringLiteral("; ")) + QLatin1Char('.');
    if (const auto& h = document_.plan()->headroom;
        h && (s->kind == SurfaceKind::Floor || s->kind == SurfaceKind::Ceiling)) {
        text += QLatin1Char(' ') +
                tr("Headroom %1, at worst %2, most likely no less than %3.")
                    .arg(f.fineLength(h->left.head), f.fineLength(h->left.worst), f.fineLength(h->left.probable));
        if (h->byShape) text += QLatin1Char(' ') + tr("By the van's shape: no bare height was read.");
        if (h->left.standsUpright)
            text += QLatin1Char(' ') +
                    (!*h->left.standsUpright ? tr("One cannot stand upright.")
                     : h->shareEnough() < 0.995
                         ? tr("One can stand upright, on %1 of the floor.").arg(f.percent(h->shareEnough()))
                         : tr("One can stand upright."));
    }
    if (s->kind == SurfaceKind::Floor)
        for (const DoorPlan& d : document_.plan()->thresholds)
            if (d.floor == s->id)
                text += QLatin1Char(' ') +
                        tr("Step at %1: %2.").arg(QString::fromStdString(d.door), f.fineLength(d.step.step));
    say(text);
}

void BuildUpPage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    const SurfacePlan* plan = surfacePlan();
    const Finish& finish = document_.job().finish(surfaceId());
    setHeading(QString::fromStdString(s->name),
               tr("%n layer(s) from the metal inwards", nullptr, static_cast<int>(finish.layers.size())));
    options_->refresh();
    if (plan && bench_->layerInHand() < 0 && document_.currentLayer() >= 0)
        bench_->takeInHand(document_.currentLayer());
    refreshLayer();
    refreshChoices();
    buildHeadroom();
    if (catalogue_->isVisible()) catalogue_->refresh();
    saySomething();
    bench_->update();
}

} // namespace westrum
