#include "formats/translations.h"

#include <QCoreApplication>
#include <QLocale>
#include <QRegularExpression>

static void initTranslations() { Q_INIT_RESOURCE(translations); }

namespace westrum {

PseudoTranslator::PseudoTranslator(QObject* parent) : QTranslator(parent) {
    initTranslations();
    (void)english_.load(QStringLiteral(":/i18n/westrum_en.qm"));
}

QString PseudoTranslator::translate(const char* context, const char* source, const char* note, int n) const {
    QString text = english_.translate(context, source, note, n);
    if (text.isEmpty()) text = QString::fromUtf8(source);
    return QLatin1Char('[') + text + QString(text.size() / 3, QLatin1Char('~')) + QLatin1Char(']');
}

QString PseudoTranslator::unmarked(QString text) {
    static const QRegularExpression marks(QStringLiteral("\\[|~*\\]"));
    return text.remove(marks);
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
