#include "formats/record_words.h"

#include "core/families/family.h"
#include "formats/work_words.h"

#include <QCoreApplication>

namespace westrum {
namespace {

struct RecordWords {
    Q_DECLARE_TR_FUNCTIONS(RecordWords)
};

QString productName(const Job& job, const std::string& id) {
    const Product* p = job.catalogue.find(id);
    return QString::fromStdString(p ? p->name : id);
}

QString surfaceName(const Job& job, const std::string& id) {
    const Surface* s = job.surface(id);
    return QString::fromStdString(s ? s->name : id);
}

/// "3 × Contact adhesive, a can".
QString counted(const Job& job, const RecordEntry& e, const Figures& f) {
    return RecordWords::tr("%1 × %2").arg(f.number(e.amount, e.amount == static_cast<int>(e.amount) ? 0 : 1),
                                          productName(job, e.product));
}

} // namespace

QString entryKindText(EntryKind kind) {
    switch (kind) {
    case EntryKind::StepDone: return RecordWords::tr("step done");
    case EntryKind::BrokenOff: return RecordWords::tr("broken off");
    case EntryKind::PieceCut: return RecordWords::tr("cut");
    case EntryKind::PieceSpoilt: return RecordWords::tr("spoilt");
    case EntryKind::OffcutKept: return RecordWords::tr("offcut kept");
    case EntryKind::Opened: return RecordWords::tr("opened");
    case EntryKind::Emptied: return RecordWords::tr("emptied");
    case EntryKind::LeftOver: return RecordWords::tr("left over");
    case EntryKind::Delivery: return RecordWords::tr("received");
    case EntryKind::Climate: return RecordWords::tr("air");
    case EntryKind::Weighed: return RecordWords::tr("weighed");
    case EntryKind::Photograph: return RecordWords::tr("photograph");
    case EntryKind::Note: return RecordWords::tr("note");
    case EntryKind::Difference: return RecordWords::tr("difference");
    case EntryKind::ThrownAway: return RecordWords::tr("thrown away");
    }
    return {};
}

QString reasonText(SpoilReason reason) {
    switch (reason) {
    case SpoilReason::Other: return RecordWords::tr("another reason");
    case SpoilReason::WrongSide: return RecordWords::tr("wrong side of the line");
    case SpoilReason::Mismeasured: return RecordWords::tr("measured wrongly");
    case SpoilReason::Split: return RecordWords::tr("split");
    case SpoilReason::Chipped: return RecordWords::tr("chipped");
    }
    return {};
}

QString entryText(const Job& job, const Plan& plan, const RecordEntry& e, const Figures& f) {
    QString text;
    switch (e.kind) {
    case EntryKind::StepDone:
    case EntryKind::BrokenOff: {
        const FitStep* step = stepOf(plan, {e.surface, e.step});
        const QString what = step ? stepTitle(*step, f) : QString::fromStdString(e.step);
        const QString took =
            e.planned > 0 ? RecordWords::tr("%1 (%2 planned)").arg(durationText(e.minutes()), durationText(e.planned))
                          : durationText(e.minutes());
        text = what.isEmpty() ? RecordWords::tr("broken off")
               : e.kind == EntryKind::StepDone
                   ? RecordWords::tr("%1, %2").arg(what, took)
                   : RecordWords::tr("%1 broken off after %2").arg(what, durationText(e.minutes()));
        break;
    }
    case EntryKind::PieceCut:
        text = RecordWords::tr("%1 cut from %2").arg(QString::fromStdString(e.piece), productName(job, e.product));
        break;
    case EntryKind::PieceSpoilt:
        text = RecordWords::tr("%1 of %2 spoilt: %3")
                   .arg(e.piece.empty() ? RecordWords::tr("a piece") : QString::fromStdString(e.piece),
                        productName(job, e.product), reasonText(e.reason));
        break;
    case EntryKind::OffcutKept:
        text = e.piece.empty() ? RecordWords::tr("an offcut of %1 kept").arg(productName(job, e.product))
                               : RecordWords::tr("offcut %1 of %2 kept")
                                     .arg(QString::fromStdString(e.piece), productName(job, e.product));
        break;
    case EntryKind::Opened: text = RecordWords::tr("%1 opened").arg(counted(job, e, f)); break;
    case EntryKind::Emptied: text = RecordWords::tr("%1 emptied").arg(counted(job, e, f)); break;
    case EntryKind::LeftOver: text = RecordWords::tr("%1 left over").arg(counted(job, e, f)); break;
    case EntryKind::ThrownAway: text = RecordWords::tr("%1 thrown away").arg(counted(job, e, f)); break;
    case EntryKind::Delivery: text = RecordWords::tr("%1 received").arg(counted(job, e, f)); break;
    case EntryKind::Climate: {
        const QString degC = e.degC ? RecordWords::tr("%1 °C").arg(f.number(*e.degC, 1)) : QString();
        const QString damp = e.humidity ? RecordWords::tr("%1 % humidity").arg(f.number(*e.humidity, 0)) : QString();
        text = degC.isEmpty() || damp.isEmpty() ? degC + damp : RecordWords::tr("%1 and %2").arg(degC, damp);
        break;
    }
    case EntryKind::Weighed: text = RecordWords::tr("weighed: %1").arg(f.mass({e.amount})); break;
    case EntryKind::Photograph: text = RecordWords::tr("photograph"); break;
    case EntryKind::Note: break;
    case EntryKind::Difference:
        text = RecordWords::tr("%1 off the drawing").arg(f.length(e.by));
        if (!e.piece.empty()) text = RecordWords::tr("%1, %2").arg(QString::fromStdString(e.piece), text);
        if (!e.step.empty()) text = RecordWords::tr("%1, %2").arg(readingName(e.step), text);
        if (e.amount > 0) text += RecordWords::tr(", in the reading now");
        break;
    }
    if (!e.lot.empty()) text += RecordWords::tr(", lot %1").arg(QString::fromStdString(e.lot));
    if (!e.text.empty()) text += (text.isEmpty() ? QString() : QStringLiteral(": ")) + QString::fromStdString(e.text);
    return e.surface.empty() ? text : RecordWords::tr("%1: %2").arg(surfaceName(job, e.surface), text);
}

QString offerFigure(const RateOffer& o, double value, const Figures& f) {
    switch (o.what) {
    case RateOffer::Minutes: return RecordWords::tr("%1 h a m²").arg(f.number(value, 2));
    case RateOffer::Coverage: return RecordWords::tr("%1 m²").arg(f.number(value, 1));
    case RateOffer::Spoils:
    case RateOffer::Waste: return f.percent(value);
    case RateOffer::Readings: return f.fineLength({std::round(value * 10) / 10});
    }
    return {};
}

QString offerText(const Job& job, const RateOffer& o, const Figures& f) {
    const QString now = offerFigure(o, o.now, f), offered = offerFigure(o, o.offered, f),
                  observed = offerFigure(o, o.observed, f);
    switch (o.what) {
    case RateOffer::Minutes: {
        const Family* family = familyOf(o.family);
        const QString name = family ? fieldName(family->product.tradeName) : QString::fromStdString(o.family);
        if (o.nowPiece > 0)
            return RecordWords::tr("%1: %n step(s) done took %2 times what was planned. Use %3 instead of %4, and %5 a "
                                   "piece instead of %6?",
                                   nullptr, o.observations)
                .arg(sentenceCase(name), f.number(o.observed / o.now, 2), offered, now,
                     durationText(o.offeredPiece * 60), durationText(o.nowPiece * 60));
        return RecordWords::tr("%1: %n step(s) done took %2, planned %3. Use %4?", nullptr, o.observations)
            .arg(sentenceCase(name), observed, now, offered);
    }
    case RateOffer::Coverage:
        return RecordWords::tr("%1: %n container(s) covered %2 each, planned %3. Use %4?", nullptr, o.observations)
            .arg(productName(job, o.product), observed, now, offered);
    case RateOffer::Spoils:
        return RecordWords::tr("Of %n cut(s) %1 were spoilt, planned %2. Use %3?", nullptr, o.observations)
            .arg(observed, now, offered);
    case RateOffer::Waste:
        return RecordWords::tr("%1: beside %n container(s) emptied, %2 of it was thrown away, planned %3. Use %4?",
                               nullptr, o.observations)
            .arg(productName(job, o.product), observed, now, offered);
    case RateOffer::Readings:
        return RecordWords::tr("%n reading(s) were off by %1; with all those that were not, a reading errs by %2. Use "
                               "that instead of %3?",
                               nullptr, o.observations)
            .arg(observed, offered, now);
    }
    return {};
}

QString plannedText(const Job& job, const PlannedReally& p) {
    switch (p.what) {
    case PlannedReally::Hours:
        return p.surface.empty() ? RecordWords::tr("Hours, whole van")
                                 : RecordWords::tr("Hours, %1").arg(surfaceName(job, p.surface));
    case PlannedReally::Containers: return RecordWords::tr("Emptied, %1").arg(productName(job, p.product));
    case PlannedReally::Spoilt: return RecordWords::tr("Cuts spoilt");
    case PlannedReally::Misread: return RecordWords::tr("Readings off by");
    case PlannedReally::Miscut: return RecordWords::tr("Pieces off by");
    }
    return {};
}

QString plannedFigure(const PlannedReally& p, double value, const Figures& f) {
    if (p.what == PlannedReally::Misread || p.what == PlannedReally::Miscut)
        return f.fineLength({std::round(value * 10) / 10});
    return p.what == PlannedReally::Hours ? durationText(value * 60) : f.number(value, 1);
}

QString consequenceText(const SpoilConsequence& c, std::optional<CivilDate> day, const std::optional<SpoilDelay>& delay,
                        const Figures& f) {
    const QString item = QString::fromStdString(c.item);
    QString text;
    switch (c.from) {
    case SpoilConsequence::Leftover:
        text = RecordWords::tr("It can be cut again from an offcut of %1 that is left.").arg(item);
        break;
    case SpoilConsequence::Rack:
        text = RecordWords::tr("It can be cut again from the offcut %1 on the rack.").arg(item);
        break;
    case SpoilConsequence::Spare:
        text = RecordWords::tr("It can be cut again from what is bought of %1 beyond the plan.").arg(item);
        break;
    case SpoilConsequence::MustBuy:
        text = c.cost ? RecordWords::tr("More of %1 must be bought for it: %2.").arg(item, f.money(*c.cost))
                      : RecordWords::tr("More of %1 must be bought for it.").arg(item);
        break;
    }
    if (c.from == SpoilConsequence::MustBuy && day)
        text += QLatin1Char(' ') + RecordWords::tr("It waits until %1.").arg(dayText(*day));
    if (c.from == SpoilConsequence::MustBuy && delay)
        text +=
            QLatin1Char(' ') + (delay->with > delay->without ? RecordWords::tr("The van is done on %1 instead of %2.")
                                                                   .arg(dayText(delay->with), dayText(delay->without))
                                                             : RecordWords::tr("The van is done no later for it."));
    return text;
}

QString emptiedText(const EmptiedConsequence& c, const std::string& product, const Figures& f) {
    const QString item = QString::fromStdString(product);
    QString text = RecordWords::tr("%1: %2 empty by now, %3 planned for what is laid; the rest will take about %4.")
                       .arg(item, f.number(c.emptied, 1), f.number(c.planned, 1), f.number(c.still, 1));
    if (c.more > 0)
        text += QLatin1Char(' ') +
                (c.cost ? RecordWords::tr("%n more must be bought, %1.", nullptr, c.more).arg(f.money(*c.cost))
                        : RecordWords::tr("%n more must be bought.", nullptr, c.more));
    else
        text += QLatin1Char(' ') + RecordWords::tr("What is bought suffices.");
    return text;
}

} // namespace westrum
