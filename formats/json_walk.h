#pragma once

#include "core/measure/measurement.h"
#include "formats/job_file.h"

#include <nlohmann/json.hpp>

#include <array>
#include <cmath>
#include <set>
#include <string>
#include <utility>

namespace westrum {

using Json = nlohmann::ordered_json;

/// Words of a file for the values of an enumeration; the first is written for a value that is none of them.
template <class Enum, std::size_t N> using FileWords = std::array<std::pair<Enum, const char*>, N>;

template <class Enum, std::size_t N> const char* wordOf(const FileWords<Enum, N>& words, Enum value) {
    for (const auto& [v, word] : words)
        if (v == value) return word;
    return words.front().second;
}

/// Walks a parsed document, checks everything and gathers faults; what is missing or wrong leaves its default.
class JsonWalk {
public:
    static constexpr std::size_t kMostEntries = 2000;
    static constexpr std::size_t kMostFaults = 20;
    static constexpr std::size_t kLongestText = 10000;

    [[nodiscard]] FileFaults& faults() { return faults_; }

    void fault(FileFaultKind kind, const std::string& path, const std::string& detail = {});
    static std::string join(const std::string& path, const char* key);

    /// The member, or null if it is missing or null.
    const Json* member(const Json& object, const std::string& path, const char* key, bool required = true);
    /// The member if it is an object; another type is a fault.
    const Json* objectMember(const Json& object, const std::string& path, const char* key, bool required = true);
    void text(const Json& object, const std::string& path, const char* key, std::string& into, bool required = true);
    bool number(const Json& object, const std::string& path, const char* key, double least, double most, double& into,
                bool required = true);
    void count(const Json& object, const std::string& path, const char* key, int least, int most, int& into,
               bool required = false);
    void flag(const Json& object, const std::string& path, const char* key, bool& into);
    void id(const Json& object, const std::string& path, std::set<std::string>& seen, std::string& into);
    /// `{"typed": ..., "mm": ...}`; nothing if it is not there.
    MaybeReading reading(const Json& object, const std::string& path, const char* key);

    template <class Enum, std::size_t N>
    void word(const Json& object, const std::string& path, const char* key, const FileWords<Enum, N>& words, Enum& into,
              bool required = true) {
        std::string found;
        const std::size_t before = faults_.size();
        text(object, path, key, found, required);
        if (faults_.size() != before || !member(object, path, key, false)) return;
        for (const auto& [value, w] : words)
            if (found == w) {
                into = value;
                return;
            }
        fault(FileFaultKind::UnknownWord, join(path, key), found);
    }

    /// Calls `take(entry, path)` for each object of a list of at most `most`.
    void each(const Json& object, const std::string& path, const char* key, const auto& take, bool required = true,
              std::size_t most = kMostEntries) {
        const Json* list = member(object, path, key, required);
        if (!list) return;
        if (!list->is_array()) return fault(FileFaultKind::WrongType, join(path, key), "list");
        if (list->size() > most) return fault(FileFaultKind::TooMany, join(path, key));
        std::size_t i = 0;
        for (const Json& entry : *list) {
            const std::string at = join(path, key) + "[" + std::to_string(i++) + "]";
            if (!entry.is_object())
                fault(FileFaultKind::WrongType, at, "object");
            else
                take(entry, at);
        }
    }

private:
    FileFaults faults_;
};

/// Parses a file of ours: its size, depth, format and version are checked first.
Result<Json, FileFaults> parsedFile(const QByteArray& bytes, std::string_view format, int newestVersion);

/// Writes a reading under a key, if there is one.
void putReading(Json& object, const char* key, const MaybeReading& reading);

} // namespace westrum
