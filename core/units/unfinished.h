#pragma once

#include "core/units/remark.h"

namespace westrum {

/// Whether a remark only says what is still to be measured or chosen: half done, not wrong. Red is for what a person
/// can and should put right.
constexpr bool isUnfinished(RemarkKind kind) {
    switch (kind) {
    case RemarkKind::ReadingMissing:
    case RemarkKind::CurveUnmeasured:
    case RemarkKind::DiagonalMissing:
    case RemarkKind::StretchUnknown:
    case RemarkKind::CutoutIncomplete:
    case RemarkKind::OpeningIncomplete:
    case RemarkKind::ZoneIncomplete:
    case RemarkKind::SupportIncomplete:
    case RemarkKind::NoProduct: return true;
    default: return false;
    }
}

} // namespace westrum
