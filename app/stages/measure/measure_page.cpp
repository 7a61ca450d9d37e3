#include "app/stages/measure/measure_page.h"

#include "app/document/shell_commands.h"
#include "app/print/measuring_sheet.h"
#include "app/stages/measure/import_preview.h"
#include "app/stages/measure/photograph_tracer.h"
#include "app/widgets/photograph.h"
#include "core/geometry/polygon.h"
#include "core/shell/holes.h"
#include "core/units/unfinished.h"
#include "formats/readings_file.h"

#include <QFileDialog>
#include <QFileInfo>
#include <QMenu>
#include <QMessageBox>
#include <QShortcut>
#include <QTimer>

namespace westrum {

MeasurePage::MeasurePage(JobDocument& document, char decimalMark, QWidget* parent)
    : StagePage(document, decimalMark, parent),
      form_(new QComboBox),
      bench_(new OutlineBench(document, decimalMark)),
      body_(new BodyBar(document)),
      doubt_(new DoubtBar(document)),
      closure_(new ClosureStrip),
      vanClosing_(new VanClosing),
      parts_(new PartsPanel(document, decimalMark)),
      meterStrip_(new MeterStrip(document, decimalMark, *bench_, meter_)) {
    form_->addItem(tr("length and width"), static_cast<int>(OutlineForm::Rectangle));
    form_->addItem(tr("four sides and diagonals"), static_cast<int>(OutlineForm::FourSides));
    form_->addItem(tr("any sides and diagonals"), static_cast<int>(OutlineForm::Polygon));
    form_->addItem(tr("baseline and offsets"), static_cast<int>(OutlineForm::Stations));
    form_->addItem(tr("from two fixed points"), static_cast<int>(OutlineForm::TwoPoint));
    form_->addItem(tr("drawn or imported"), static_cast<int>(OutlineForm::Drawn));
    form_->setAccessibleName(tr("Way of measuring"));
    form_->setObjectName(QStringLiteral("form"));
    connect(form_, &QComboBox::activated, this, [this](int index) {
        push(document_,
             chooseOutlineForm(document_, surfaceId(), static_cast<OutlineForm>(form_->itemData(index).toInt())));
    });
    connectParts();
    connectDialogs();
    sentenceRow()->addWidget(meterStrip_->joinButton(), 0, Qt::AlignTop);
    sentenceRow()->addWidget(form_, 0, Qt::AlignTop);
    column()->addWidget(body_);
    column()->addWidget(doubt_);
    column()->addWidget(bench_, 1);
    column()->addWidget(closure_);
    column()->addWidget(vanClosing_, 1);
    column()->addWidget(parts_);
    column()->addWidget(meterStrip_);
    connect(meterStrip_, &MeterStrip::connectWanted, &meter_, &SocketMeter::connectTo);
    connect(meterStrip_, &MeterStrip::letGoWanted, &meter_, &SocketMeter::letGo);
    auto* shortcut = new QShortcut(QKeySequence(Qt::Key_F8), this);
    shortcut->setContext(Qt::WidgetWithChildrenShortcut);
    connect(shortcut, &QShortcut::activated, meterStrip_, &MeterStrip::take);
}

void MeasurePage::connectParts() {
    const auto note = [this](const QString& sentence) {
        problem_ = sentence;
        refresh();
    };
    connect(bench_, &OutlineBench::problem, this, note);
    connect(parts_, &PartsPanel::problem, this, note);
    connect(parts_, &PartsPanel::turned, this, [this] { refresh(); });
    connect(parts_, &PartsPanel::pointAtSide, this, &MeasurePage::pointAtSide);
    connect(parts_, &PartsPanel::tieOnMap, this, &MeasurePage::tieOnMap);
    connect(bench_, &OutlineBench::pressed, this, [this](int index) {
        if (index >= 0) parts_->show(parts_->group(), index);
    });
    connect(doubt_, &DoubtBar::lookedAt, this, [this] { bench_->showInstead(doubt_->shown(), doubt_->shownWords()); });
    connect(doubt_, &DoubtBar::takeWanted, this, &MeasurePage::takeAgain);
    connect(vanClosing_, &VanClosing::surfaceWanted, this, [this](const std::string& id, const QString& key) {
        document_.setCurrentSurface(id);
        if (key.isEmpty())
            parts_->show(PartsPanel::Outline, -1);
        else
            takeAgain(key);
    });
    connect(bench_, &OutlineBench::boxDrawn, parts_, &PartsPanel::addZoneAt);
    connect(parts_, &PartsPanel::begun, this, [this](const QString& key) {
        // Once the new thing stands on the drawing and in the form.
        QTimer::singleShot(0, this, [this, key] {
            if (!bench_->focusFirst(key)) focusInParts(key);
        });
    });
    connect(parts_, &PartsPanel::sheetsWanted, this, &MeasurePage::offerSheets);
}

void MeasurePage::focusInParts(const QString& key) {
    for (auto* field : parts_->findChildren<EntryField*>())
        if (field->objectName().endsWith(key) && field->isVisible()) {
            field->setFocus();
            return field->selectAll();
        }
}

/// Goes to where a reading of the surface in hand is typed.
void MeasurePage::takeAgain(const QString& key) {
    const QLatin1String headroom("headroom"); // "headroomRear" is typed into headRear
    if (key.startsWith(headroom)) return emit headroomWanted(QStringLiteral("head") + key.mid(headroom.size()));
    // A diagonal that was just added has its field once the page has been laid anew.
    QTimer::singleShot(0, this, [this, key] {
        if (const auto opening = openingOfKey(key.toStdString()))
            parts_->show(PartsPanel::Openings, static_cast<int>(*opening));
        else if (key == QLatin1String("lean") || key.startsWith(QLatin1String("height")))
            parts_->show(PartsPanel::Itself, -1);
        else
            parts_->show(PartsPanel::Outline, -1);
        QTimer::singleShot(0, this, [this, key] { // once its fields can be seen
            if (!bench_->focusField(key)) focusInParts(key);
        });
    });
}

/// What asks for a file first.
void MeasurePage::connectDialogs() {
    connect(parts_, &PartsPanel::importWanted, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("A drawing of the outline"), {},
                                                          tr("Drawings and points (*.dxf *.svg *.csv *.txt)"));
        if (!path.isEmpty()) importFrom(path);
    });
    connect(parts_, &PartsPanel::exportWanted, this, [this] {
        const QString path = QFileDialog::getSaveFileName(
            this, tr("Export the outline"), QString::fromStdString(surface()->name) + QStringLiteral(".dxf"),
            tr("DXF (*.dxf);;SVG (*.svg);;Points, or the readings where the name ends so (*.csv)"));
        if (!path.isEmpty()) exportTo(path);
    });
    connect(parts_, &PartsPanel::photographWanted, this, [this] {
        const QString path = QFileDialog::getOpenFileName(this, tr("A photograph of the surface"), {},
                                                          tr("Pictures (*.jpg *.jpeg *.png *.bmp *.webp)"));
        if (!path.isEmpty()) tracePhotograph(path);
    });
}

void MeasurePage::tell(const QString& sentence, bool attention) {
    say(sentence, attention); // stands until the next change
}

bool MeasurePage::importReadings(const QString& path) {
    QFile file(path);
    if (!file.open(QIODevice::ReadOnly)) return false;
    const QByteArray bytes = file.read(kLargestOutlineFile);
    const auto list = readReadings(bytes, *surface(), document_.job().bareUnit);
    if (!list) {
        // Lines of two numbers are corners, not readings: those go on to be read as an outline.
        if (readPoints(bytes).has_value()) return false;
        tell(tr("%1 was not taken in. %2").arg(QFileInfo(path).fileName(), westrum::sentence(list.error())), true);
        return true;
    }
    const Figures f = figures();
    QStringList lines;
    for (const ListedReading& r : list.value())
        lines << QStringLiteral("%1: %2").arg(readingName(r.key), f.fineLength(r.reading.length));
    QMessageBox preview(QMessageBox::NoIcon, tr("Readings from a list"),
                        tr("%n reading(s) for %1:", nullptr, static_cast<int>(lines.size()))
                                .arg(QString::fromStdString(surface()->name)) +
                            QStringLiteral("\n\n") + lines.mid(0, 24).join(QLatin1Char('\n')),
                        QMessageBox::NoButton, this);
    preview.addButton(tr("Take them in"), QMessageBox::AcceptRole)->setObjectName(QStringLiteral("takeIn"));
    preview.addButton(tr("Leave them"), QMessageBox::RejectRole);
    preview.exec();
    if (preview.buttonRole(preview.clickedButton()) != QMessageBox::AcceptRole) return true;
    Surface s = *surface();
    for (const ListedReading& r : list.value())
        if (MaybeReading* place = findReading(s, r.key)) *place = r.reading;
    push(document_, replaceSurface(tr("Take readings in"), document_, std::move(s)));
    return true;
}

void MeasurePage::importFrom(const QString& path) {
    const QString ending = QFileInfo(path).suffix().toLower();
    if ((ending == QLatin1String("csv") || ending == QLatin1String("txt")) && importReadings(path)) return;
    const auto drawing = readOutlineFile(path);
    if (!drawing)
        return tell(tr("%1 was not taken in. %2").arg(QFileInfo(path).fileName(), westrum::sentence(drawing.error())),
                    true);
    ImportPreview preview(drawing.value(), figures(), this, lostWithOutline(*surface()));
    if (preview.exec() == QDialog::Accepted)
        push(document_, takeOutlineIn(document_, surfaceId(), preview.outline(), preview.openings()));
}

bool MeasurePage::exportTo(const QString& path) {
    const SurfacePlan* plan = surfacePlan();
    if (!plan || !plan->measured.measured()) {
        tell(tr("There is no outline to export yet: measure it first."), true);
        return false;
    }
    const QString ending = QFileInfo(path).suffix().toLower();
    const QByteArray bytes =
        ending == QLatin1String("svg") ? writeSvg(QString::fromStdString(surface()->name), plan->measured, plan->shape)
        : ending == QLatin1String("csv")
            ? (QFileInfo(path).completeBaseName().endsWith(tr("readings")) ? writeReadings(*surface())
                                                                           : writePoints(plan->measured, plan->shape))
            : writeDxf(plan->measured, plan->shape);
    const auto fault = writeFile(bytes, path);
    tell(fault ? westrum::sentence(*fault) : tr("Written to %1.").arg(QFileInfo(path).fileName()), fault.has_value());
    return !fault;
}

void MeasurePage::tracePhotograph(const QString& path) {
    QString why;
    QImage picture = readPhotograph(path, why);
    if (picture.isNull()) return tell(why, true);
    PhotographTracer tracer(document_, std::move(picture), decimalMark_, this);
    if (tracer.exec() != QDialog::Accepted) return;
    const std::vector<Ring> rings = tracer.ringsMm();
    push(document_, takeOutlineIn(document_, surfaceId(), rings.front(), {rings.begin() + 1, rings.end()}));
}

void MeasurePage::offerSheets() {
    QMenu menu(this);
    const auto add = [&](const QString& text, bool all, bool filled) {
        menu.addAction(text, this, [this, all, filled] {
            const QString path = QFileDialog::getSaveFileName(this, tr("Measuring sheets"), tr("measuring sheets.pdf"),
                                                              tr("PDF (*.pdf)"));
            if (!path.isEmpty()) writeSheets(path, all, filled);
        });
    };
    add(tr("This surface, to fill in"), false, false);
    add(tr("This surface, filled in"), false, true);
    add(tr("All surfaces, to fill in"), true, false);
    add(tr("All surfaces, filled in"), true, true);
    menu.exec(QCursor::pos());
}

bool MeasurePage::writeSheets(const QString& path, bool all, bool filled) {
    std::vector<std::string> ids;
    for (const Surface& s : document_.job().surfaces)
        if (all || s.id == surfaceId()) ids.push_back(s.id);
    const QString fault =
        saveMeasuringSheets(path, tr("Measuring sheets, %1").arg(QString::fromStdString(document_.job().name)),
                            document_.job(), *document_.plan(), ids, figures(), filled);
    tell(fault.isEmpty() ? tr("Written to %1.").arg(QFileInfo(path).fileName()) : fault, !fault.isEmpty());
    return fault.isEmpty();
}

void MeasurePage::sidePointedAt(const std::string& surface, int side) { parts_->meetInHand(surface, side); }

QString MeasurePage::sentenceFor(const Surface& s, const SurfacePlan* plan, bool& attention) const {
    const Figures f = figures();
    if (!problem_.isEmpty()) {
        attention = true;
        return problem_;
    }
    if (s.measurement.empty()) {
        switch (s.measurement.form) {
        case OutlineForm::Rectangle:
            return s.kind == SurfaceKind::Floor ? tr("Type the length of the floor into a and its width into b.")
                                                : tr("Type the length into a and the height into b.");
        case OutlineForm::FourSides: return tr("Type the four sides and both diagonals where they stand.");
        case OutlineForm::Polygon:
            return tr("Type the sides in order round the outline, then the diagonals inside it.");
        case OutlineForm::Stations:
            return tr(
                "Lay the tape along the baseline; at each station type where it is and how far the edge is away.");
        case OutlineForm::Drawn: return tr("Import a drawing or trace a photograph: under “Surface”, below.");
        case OutlineForm::TwoPoint: return tr("Type the base from A to B, then each corner's distance from both.");
        }
    }
    const Remark* worst = nullptr;
    int count = 0;
    if (plan)
        for (const Remark& r : plan->remarks) {
            const bool ours = r.place.part == Part::Reading || r.place.part == Part::Notch ||
                              r.place.part == Part::Step || r.place.part == Part::Opening ||
                              r.place.part == Part::Zone || r.place.part == Part::Support ||
                              r.place.part == Part::Edge || (r.place.part == Part::Whole && !plan->setOut().laid());
            if (!ours) continue;
            ++count;
            if (!worst || r.severity > worst->severity) worst = &r;
        }
    if (worst) {
        attention = worst->severity == Severity::Error && !isUnfinished(worst->kind);
        return sentence(*worst, f) +
               (count > 1 ? QStringLiteral(" ") + tr("%n more remark(s) in the tally.", nullptr, count - 1)
                          : QString());
    }
    if (!plan || !plan->measured.measured()) return {};
    if (plan->measured.slip) // it may be this surface's: told at another one
        for (const Remark& r : document_.plan()->remarks)
            if (r.kind == RemarkKind::VanDoesNotClose || r.kind == RemarkKind::VanReadingWrong) return sentence(r, f);
    switch (parts_->group()) {
    case PartsPanel::Zones:
        if (plan->shape.visibleCentreY && !plan->shape.zones.empty())
            return tr("The middle of what is seen lies %1 up and %2 along.")
                .arg(f.length({*plan->shape.visibleCentreY}), f.length({*plan->shape.visibleCentreX}));
        break;
    case PartsPanel::Van: {
        const Passage& way = document_.plan()->passage;
        if (way.widestPanel)
            return tr("A panel up to %1 wide goes in, through “%2”.")
                       .arg(f.length(*way.widestPanel), QString::fromStdString(way.door)) +
                   (way.loadLength
                        ? QStringLiteral(" ") + tr("The car takes %1 × %2.")
                                                    .arg(f.length(*way.loadLength, false), f.length(*way.loadWidth))
                        : QString());
        return tr("Measure the doors: the largest panel that goes through follows.");
    }
    default: break;
    }
    return s.kind == SurfaceKind::Floor ? tr("The readings close. Lay the finish in Set out.")
                                        : tr("The readings close.");
}

void MeasurePage::refresh() {
    const Surface* s = surface();
    if (!s) return;
    if (shown_ != s->id) {
        shown_ = s->id;
        problem_.clear();
    }
    const Figures f = figures();
    const SurfacePlan* plan = surfacePlan();
    form_->setCurrentIndex(form_->findData(static_cast<int>(s->measurement.form)));
    const bool measured = plan && plan->measured.measured();
    const QString seen = s->kind == SurfaceKind::Floor     ? tr("seen from above")
                         : s->kind == SurfaceKind::Ceiling ? tr("seen from below")
                                                           : tr("seen from inside");
    QString detail = measured ? tr("%1, %2").arg(f.area({areaMm2(plan->measured.outline) / 1e6}), seen) : seen;
    if (const QString area = areaText(s->area); !area.isEmpty()) detail = tr("%1; %2").arg(area, detail);
    setHeading(QString::fromStdString(s->name), detail);
    parts_->refresh();
    // A field that loses its place there hands over what was typed: job and plan may be others by now.
    s = surface();
    if (!s) return;
    const std::shared_ptr<const Plan> held = document_.plan();
    plan = held->surface(s->id);
    constexpr BenchFocus focus[] = {BenchFocus::Outline,  BenchFocus::Openings, BenchFocus::Edges,  BenchFocus::Zones,
                                    BenchFocus::Supports, BenchFocus::Outline,  BenchFocus::Outline};
    bench_->setFocusOn(focus[parts_->group()], parts_->inHand());
    closure_->showClosure(s->measurement, plan ? plan->measured : MeasuredOutline{}, f);
    if (parts_->group() != PartsPanel::Outline) closure_->hide();
    vanClosing_->showClosing(document_.job(), *held, f);
    // Of the whole van no single surface is in hand.
    const bool van = parts_->group() == PartsPanel::Van && !held->fold.corners.empty();
    vanClosing_->setVisible(van);
    bench_->setVisible(!van);
    doubt_->refresh(plan ? plan->measured : MeasuredOutline{}, f);
    body_->refresh(f);
    bool attention = false;
    const QString text = sentenceFor(*s, plan, attention);
    say(text, attention);
}

} // namespace westrum
