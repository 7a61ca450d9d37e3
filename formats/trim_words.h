#pragma once

#include "core/setout/edge_trims.h"
#include "formats/words.h"

namespace westrum {

/// "skirting", "sealant bead".
QString profileText(Profile profile);
/// What comes together at an edge: "floor and wall".
QString meetingText(EdgeMeeting meeting);
/// "Skirting along side b, 1 800, two pieces": one run in a line.
QString runText(const TrimRun& run, const Job& job, const Figures& figures);
/// "mitred, inside corner of 91.5°": how an end is made.
QString jointTitle(const TrimJoint& joint);
/// How the saw is set, or what is done instead, in one or two sentences.
QString jointText(const TrimJoint& joint, const Figures& figures);
/// The setting in figures: "mitre 31.6°, bevel 33.9°"; empty for a square cut.
QString settingText(const SawSetting& setting, const Figures& figures);

} // namespace westrum
