#include "formats/translations.h"

#include <QCoreApplication>
#include <QLocale>
#include <QTranslator>

static void initTranslations() { Q_INIT_RESOURCE(translations); }

namespace westrum {

void loadTranslations() {
    initTranslations();
    auto* translator = new QTranslator(QCoreApplication::instance());
    if (translator->load(QLocale(), QStringLiteral("westrum"), QStringLiteral("_"), QStringLiteral(":/i18n")) ||
        translator->load(QStringLiteral(":/i18n/westrum_en.qm")))
        QCoreApplication::installTranslator(translator);
}

} // namespace westrum
