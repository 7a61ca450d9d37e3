#pragma once

namespace westrum {

/// Installs the translation of the user's language, or English with its plural forms. Call once, after the
/// QCoreApplication is made.
void loadTranslations();

} // namespace westrum
