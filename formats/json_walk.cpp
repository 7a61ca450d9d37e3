#include "formats/json_walk.h"

namespace westrum {

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

} // namespace westrum
