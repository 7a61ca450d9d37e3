#include "formats/translations.h"

#include <QCoreApplication>
#include <QLocale>

static void initTranslations() { Q_INIT_RESOURCE(translations); }

namespace westrum {

QString PseudoTranslator::translate(const char*, const char* source, const char*, int) const {
    const QString text = QString::fromUtf8(source);
    return QLatin1Char('[') + text + QString(text.size() / 3, QLatin1Char('~')) + QLatin1Char(']');
}

void loadTranslations() {
    initTranslations();
    if (qEnvironmentVariableIsSet("WESTRUM_PSEUDO")) {
        QCoreApplication::installTranslator(new PseudoTranslator(QCoreApplication::instance()));
        return;
    }
    auto* translator = new QTranslator(QCoreApplication::instance());
    if (translator->load(QLocale(), QStringLiteral("westrum"), QStringLiteral("_"), QStringLiteral(":/i18n")) ||
        translator->load(QStringLiteral(":/i18n/westrum_en.qm")))
        QCoreApplication::installTranslator(translator);
}

} // namespace westrum
