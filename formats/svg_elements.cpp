#include "formats/svg_elements.h"

#include <numbers>

namespace westrum {

QTransform transformOf(QStringView text) {
    QTransform all;
    Numbers n(text);
    for (int guard = 0; !n.atEnd() && guard < 100; ++guard) {
        const QString word = n.word();
        if (word.isEmpty() || !n.is(u'(')) return all;
        double v[6] = {};
        int count = 0;
        while (count < 6 && n.next(v[count])) ++count;
        if (!n.is(u')')) return all;
        QTransform one;
        if (word == QLatin1String("translate") && count >= 1)
            one.translate(v[0], count > 1 ? v[1] : 0);
        else if (word == QLatin1String("scale") && count >= 1)
            one.scale(v[0], count > 1 ? v[1] : v[0]);
        else if (word == QLatin1String("rotate") && count >= 1) {
            const double x = count > 2 ? v[1] : 0, y = count > 2 ? v[2] : 0;
            one.translate(x, y);
            one.rotate(v[0]);
            one.translate(-x, -y);
        } else if (word == QLatin1String("skewX") && count == 1)
            one.shear(std::tan(v[0] * std::numbers::pi / 180), 0);
        else if (word == QLatin1String("skewY") && count == 1)
            one.shear(0, std::tan(v[0] * std::numbers::pi / 180));
        else if (word == QLatin1String("matrix") && count == 6)
            one = QTransform(v[0], v[1], v[2], v[3], v[4], v[5]);
        else
            return all;
        all = one * all;
    }
    return all;
}

std::optional<double> mmOfSvgUnit(const QString& unit) {
    const std::pair<const char*, double> units[] = {{"mm", 1},        {"cm", 10},  {"in", 25.4}, {"pt", 25.4 / 72},
                                                    {"pc", 25.4 / 6}, {"m", 1000}, {"q", 0.25}};
    for (const auto& [name, mm] : units)
        if (unit.compare(QLatin1String(name), Qt::CaseInsensitive) == 0) return mm;
    return std::nullopt;
}

std::optional<double> worldLength(const QString& text) {
    Numbers n(text);
    double v = 0;
    if (!n.next(v) || v <= 0) return std::nullopt;
    const auto unit = mmOfSvgUnit(n.word());
    return unit ? std::optional(v * *unit) : std::nullopt;
}

void applyLook(Look& look, const QString& property, const QString& value) {
    const QString v = value.trimmed().toLower();
    if (property == QLatin1String("display") && v == QLatin1String("none")) look.shown = false;
    if (property == QLatin1String("opacity")) {
        bool good = false;
        if (v.toDouble(&good) == 0 && good) look.shown = false;
    }
    if (property == QLatin1String("visibility"))
        look.visible = v != QLatin1String("hidden") && v != QLatin1String("collapse");
    if (property == QLatin1String("fill")) look.filled = v != QLatin1String("none");
    if (property == QLatin1String("stroke")) look.stroked = v != QLatin1String("none");
}

void applyDeclarations(Look& look, const QString& text) {
    for (const QString& declaration : text.split(QLatin1Char(';'))) {
        const qsizetype colon = declaration.indexOf(QLatin1Char(':'));
        if (colon > 0) applyLook(look, declaration.left(colon).trimmed().toLower(), declaration.mid(colon + 1));
    }
}

void StyleSheet::add(QString text) {
    for (qsizetype at = text.indexOf(QLatin1String("/*")); at >= 0; at = text.indexOf(QLatin1String("/*"))) {
        const qsizetype end = text.indexOf(QLatin1String("*/"), at + 2);
        text.remove(at, (end < 0 ? text.size() : end + 2) - at);
    }
    for (const QString& rule : text.split(QLatin1Char('}'))) {
        const qsizetype open = rule.indexOf(QLatin1Char('{'));
        if (open < 0) continue;
        for (const QString& selector : rule.left(open).split(QLatin1Char(',')))
            rules_[selector.trimmed()] += rule.mid(open + 1) + QLatin1Char(';');
    }
}

void StyleSheet::apply(const Element& e, Look& look) const {
    if (rules_.isEmpty()) return;
    const auto use = [&](const QString& selector) {
        if (const auto rule = rules_.find(selector); rule != rules_.end()) applyDeclarations(look, *rule);
    };
    use(QStringLiteral("*"));
    use(e.name);
    for (const QString& c : e.value("class").split(QLatin1Char(' '), Qt::SkipEmptyParts)) {
        use(QLatin1Char('.') + c);
        use(e.name + QLatin1Char('.') + c);
    }
    use(QLatin1Char('#') + e.id());
}

std::optional<OutlineFault> readElements(const QByteArray& bytes, std::unique_ptr<Element>& root, StyleSheet& styles) {
    QXmlStreamReader xml(bytes);
    xml.setEntityExpansionLimit(1024);
    std::vector<Element*> open;
    int count = 0;
    while (!xml.atEnd()) {
        const auto token = xml.readNext();
        if (token == QXmlStreamReader::StartElement) {
            if (static_cast<int>(open.size()) >= kDeepestSvg || ++count > kMostSvgElements)
                return OutlineFault{OutlineFaultKind::TooLarge, {}};
            auto element = std::make_unique<Element>();
            element->name = xml.name().toString();
            element->attributes = xml.attributes();
            Element* now = element.get();
            if (!open.empty())
                open.back()->inner.push_back(std::move(element));
            else if (!root)
                root = std::move(element);
            open.push_back(now);
        } else if (token == QXmlStreamReader::Characters) {
            if (!open.empty() && open.back()->name == QLatin1String("style")) styles.add(xml.text().toString());
        } else if (token == QXmlStreamReader::EndElement && !open.empty()) {
            open.pop_back();
        }
    }
    const bool svg = root && root->name == QLatin1String("svg");
    if (xml.hasError() || !svg)
        return OutlineFault{OutlineFaultKind::Damaged,
                            svg || xml.hasError() ? std::to_string(xml.lineNumber()) : "svg"};
    return std::nullopt;
}

} // namespace westrum
