#pragma once

#include "core/buildup/build_up.h"
#include "core/shell/arch_box.h"
#include "formats/json_walk.h"

#include <map>

namespace westrum {

// What lies below a finish, in the job file.

Support readSupport(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const Support& support);

Packing readPacking(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const Packing& packing);

ArchBox readArchBox(JsonWalk& walk, const Json& entry, const std::string& path, std::set<std::string>& ids);
Json written(const ArchBox& box);

/// How single pieces of a layer are held, by key of their name.
std::map<std::string, int> readHolders(JsonWalk& walk, const Json& entry, const std::string& path);
Json writtenHolders(const std::map<std::string, int>& holders);

std::map<OpeningKind, Mm> readClearances(JsonWalk& walk, const Json& entry, const std::string& path);
Json written(const std::map<OpeningKind, Mm>& clearances);

inline constexpr FileWords<OpeningKind, kOpeningKinds> kOpeningWords{{{OpeningKind::Window, "window"},
                                                                      {OpeningKind::RoofVent, "roof-vent"},
                                                                      {OpeningKind::Lamp, "lamp"},
                                                                      {OpeningKind::Socket, "socket"},
                                                                      {OpeningKind::Hatch, "hatch"},
                                                                      {OpeningKind::Pipe, "pipe"},
                                                                      {OpeningKind::Other, "other"},
                                                                      {OpeningKind::Hob, "hob"},
                                                                      {OpeningKind::Sink, "sink"},
                                                                      {OpeningKind::Heater, "heater"}}};

} // namespace westrum
