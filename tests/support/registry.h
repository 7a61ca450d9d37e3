#pragma once

#include <QObject>
#include <QString>

#include <functional>
#include <memory>
#include <vector>

namespace westrum::test {

struct Entry {
    QString name;
    std::function<std::unique_ptr<QObject>()> make;
};

std::vector<Entry>& registry();

template <class T> struct Register {
    explicit Register(const char* name) {
        registry().push_back({QString::fromLatin1(name), [] { return std::make_unique<T>(); }});
    }
};

} // namespace westrum::test

/// Put after a test class: the executable of its room then runs it.
#define WESTRUM_TEST(Class) static const westrum::test::Register<Class> register##Class(#Class);
