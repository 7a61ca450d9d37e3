#pragma once

#include <QTranslator>

namespace westrum {

/// Installs the translation of the user's language, or English with its plural forms. Call once, after the
/// QCoreApplication is made. WESTRUM_PSEUDO=1 in the environment installs a PseudoTranslator instead.
void loadTranslations();

/// A language that nobody speaks: every text stands in brackets and is a third longer, as other languages are. What
/// shows without brackets was never translated; what is cut off has no room for German.
class PseudoTranslator : public QTranslator {
public:
    explicit PseudoTranslator(QObject* parent = nullptr);
    QString translate(const char* context, const char* source, const char* disambiguation, int n) const override;
    bool isEmpty() const override { return false; }
    /// The text without the marks of this language, also where marked texts stand inside one another.
    static QString unmarked(QString text);

private:
    QTranslator english_; ///< for its plural forms
};

} // namespace westrum
