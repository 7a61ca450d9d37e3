#include "formats/json_walk.h"

namespace westrum {
namespace {

constexpr int kDeepest = 32;

/// Depth of nesting, brackets in texts not counted; done before parsing, so that no parser meets the deep.
int nestingOf(const QByteArray& bytes) {
    int depth = 0, deepest = 0;
    bool inText = false;
    for (qsizetype i = 0; i < bytes.size(); ++i) {
        const char c = bytes[i];
        if (inText) {
            if (c == '\\')
                ++i;
            else if (c == '"')
                inText = false;
        } else if (c == '"') {
            inText = true;
        } else if (c == '[' || c == '{') {
            deepest = std::max(deepest, ++depth);
        } else if (c == ']' || c == '}') {
            --depth;
        }
    }
    return deepest;
}

} // namespace

void JsonWalk::fault(FileFaultKind kind, const std::string& path, const std::string& detail) {
    if (faults_.size() < kMostFaults) faults_.push_back({kind, path, detail.substr(0, 60)});
}

std::string JsonWalk::join(const std::string& path, const char* key) { return path.empty() ? key : path + "." + key; }

const Json* JsonWalk::member(const Json& object, const std::string& path, const char* key, bool required) {
    if (!object.is_object()) return nullptr; // said where the object was opened
    const auto found = object.find(key);
    if (found == object.end() || found->is_null()) {
        if (required) fault(FileFaultKind::Missing, join(path, key));
        return nullptr;
    }
    return &*found;
}

const Json* JsonWalk::objectMember(const Json& object, const std::string& path, const char* key, bool required) {
    const Json* found = member(object, path, key, required);
    if (!found || found->is_object()) return found;
    fault(FileFaultKind::WrongType, join(path, key), "object");
    return nullptr;
}

void JsonWalk::text(const Json& object, const std::string& path, const char* key, std::string& into, bool required) {
    const Json* value = member(object, path, key, required);
    if (!value) return;
    if (!value->is_string())
        fault(FileFaultKind::WrongType, join(path, key), "text");
    else if (value->get_ref<const std::string&>().size() > kLongestText)
        fault(FileFaultKind::OutOfRange, join(path, key));
    else
        into = value->get<std::string>();
}

bool JsonWalk::number(const Json& object, const std::string& path, const char* key, double least, double most,
                      double& into, bool required) {
    const Json* value = member(object, path, key, required);
    if (!value) return false;
    if (!value->is_number()) {
        fault(FileFaultKind::WrongType, join(path, key), "number");
        return false;
    }
    const double n = value->get<double>();
    if (!std::isfinite(n) || n < least || n > most) {
        fault(FileFaultKind::OutOfRange, join(path, key));
        return false;
    }
    into = n;
    return true;
}

void JsonWalk::count(const Json& object, const std::string& path, const char* key, int least, int most, int& into,
                     bool required) {
    double n = into;
    if (number(object, path, key, least, most, n, required)) into = static_cast<int>(n);
}

void JsonWalk::flag(const Json& object, const std::string& path, const char* key, bool& into) {
    const Json* value = member(object, path, key, false);
    if (!value) return;
    if (value->is_boolean())
        into = value->get<bool>();
    else
        fault(FileFaultKind::WrongType, join(path, key), "true or false");
}

void JsonWalk::id(const Json& object, const std::string& path, std::set<std::string>& seen, std::string& into) {
    text(object, path, "id", into);
    if (!into.empty() && !seen.insert(into).second) fault(FileFaultKind::Duplicate, path + ".id", into);
}

MaybeReading JsonWalk::reading(const Json& object, const std::string& path, const char* key) {
    const Json* value = objectMember(object, path, key, false);
    if (!value) return std::nullopt;
    const std::string at = join(path, key);
    Reading r;
    text(*value, at, "typed", r.typed, false);
    double mm = 0;
    if (!number(*value, at, "mm", -kLongestLength.value, kLongestLength.value, mm)) return std::nullopt;
    r.length = {mm};
    return r;
}

void putReading(Json& object, const char* key, const MaybeReading& reading) {
    if (reading) object[key] = {{"typed", reading->typed}, {"mm", reading->length.value}};
}

Result<Json, FileFaults> parsedFile(const QByteArray& bytes, std::string_view format, int newestVersion) {
    const auto refuse = [](FileFaultKind kind, std::string detail = {}) {
        return FileFaults{{kind, {}, std::move(detail)}};
    };
    if (bytes.size() > kLargestJobFile) return refuse(FileFaultKind::TooLarge);
    if (bytes.trimmed().isEmpty()) return refuse(FileFaultKind::Empty);
    if (nestingOf(bytes) > kDeepest) return refuse(FileFaultKind::TooDeep);
    Json root;
    try {
        root = Json::parse(bytes.constData(), bytes.constData() + bytes.size());
    } catch (const Json::parse_error& e) {
        return refuse(FileFaultKind::NotJson, std::to_string(e.byte));
    } catch (const Json::exception&) {
        return refuse(FileFaultKind::NotJson, "0");
    }
    if (!root.is_object() || !root.contains("format") || root["format"] != format)
        return refuse(FileFaultKind::NotAJob);
    const auto version = root.find("version");
    if (version == root.end() || !version->is_number_integer() || version->get<std::int64_t>() < 1 ||
        version->get<std::int64_t>() > newestVersion)
        return refuse(FileFaultKind::UnknownVersion, version == root.end() ? "-" : version->dump().substr(0, 20));
    return root;
}

} // namespace westrum
