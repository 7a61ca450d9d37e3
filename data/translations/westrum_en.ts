<?xml version='1.0' encoding='utf-8'?>
<TS version="2.1" language="en" sourcelanguage="en">
<context>
    <name>Words</name>
    <message numerus="yes">
        <source>%n pack(s) of one lot? Measure one plank: length, width, locks whole.</source>
        <translation>
            <numerusform>%n pack of one lot? Measure one plank: length, width, locks whole.</numerusform>
            <numerusform>%n packs of one lot? Measure one plank: length, width, locks whole.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n strip(s)</source>
        <translation>
            <numerusform>%n strip</numerusform>
            <numerusform>%n strips</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n pack(s)</source>
        <translation>
            <numerusform>%n pack</numerusform>
            <numerusform>%n packs</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n roll(s)</source>
        <translation>
            <numerusform>%n roll</numerusform>
            <numerusform>%n rolls</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n plank(s)</source>
        <translation>
            <numerusform>%n plank</numerusform>
            <numerusform>%n planks</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) beside a cut-out or a slanting wall are slivers, the narrowest %1.</source>
        <translation>
            <numerusform>%n piece beside a cut-out or a slanting wall is a sliver, %1 at its narrowest.</numerusform>
            <numerusform>%n pieces beside a cut-out or a slanting wall are slivers, the narrowest %1.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n sheet(s)</source>
        <translation>
            <numerusform>%n sheet</numerusform>
            <numerusform>%n sheets</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n length(s)</source>
        <translation>
            <numerusform>%n length</numerusform>
            <numerusform>%n lengths</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::BuyPage</name>
    <message numerus="yes">
        <source>With %n pack(s) it is %1.</source>
        <translation>
            <numerusform>With %n pack it is %1.</numerusform>
            <numerusform>With %n packs it is %1.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::CutPage</name>
    <message numerus="yes">
        <source>%n piece(s) found no stock: %1.</source>
        <translation>
            <numerusform>%n piece found no stock: %1.</numerusform>
            <numerusform>%n pieces found no stock: %1.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>And %n more.</source>
        <translation>
            <numerusform>And %n more.</numerusform>
            <numerusform>And %n more.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n stroke(s) that do not close were passed over.</source>
        <translation>
            <numerusform>%n stroke that does not close was passed over.</numerusform>
            <numerusform>%n strokes that do not close were passed over.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) taken in.</source>
        <translation>
            <numerusform>%n piece taken in.</numerusform>
            <numerusform>%n pieces taken in.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::ImportPreview</name>
    <message numerus="yes">
        <source>%n opening(s) lie within it.</source>
        <translation>
            <numerusform>%n opening lie within it.</numerusform>
            <numerusform>%n openings lie within it.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n stroke(s) do not close and are left out.</source>
        <translation>
            <numerusform>%n stroke do not close and are left out.</numerusform>
            <numerusform>%n strokes do not close and are left out.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n other object(s) are passed over.</source>
        <translation>
            <numerusform>%n other object are passed over.</numerusform>
            <numerusform>%n other objects are passed over.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::MainWindow</name>
    <message numerus="yes">
        <source>And %n more.</source>
        <translation>
            <numerusform>And %n more.</numerusform>
            <numerusform>And %n more.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::MeasurePage</name>
    <message numerus="yes">
        <source>%n more remark(s) in the tally.</source>
        <translation>
            <numerusform>%n more remark in the tally.</numerusform>
            <numerusform>%n more remarks in the tally.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n reading(s) for %1:</source>
        <translation>
            <numerusform>%n reading for %1:</numerusform>
            <numerusform>%n readings for %1:</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::NewVanPage</name>
    <message numerus="yes">
        <source>A few rough figures lay out %n surface(s) as ghosts, in their places and with names. Measure them one by one afterwards.</source>
        <translation>
            <numerusform>A few rough figures lay out %n surface as ghosts, in their places and with names. Measure them one by one afterwards.</numerusform>
            <numerusform>A few rough figures lay out %n surfaces as ghosts, in their places and with names. Measure them one by one afterwards.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::PhotographTracer</name>
    <message numerus="yes">
        <source>The outline is %1 × %2; %n opening(s) within it. Take it in, or check a length.</source>
        <translation>
            <numerusform>The outline is %1 × %2; %n opening within it. Take it in, or check a length.</numerusform>
            <numerusform>The outline is %1 × %2; %n openings within it. Take it in, or check a length.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::StartStrip</name>
    <message numerus="yes">
        <source>%n pack(s)</source>
        <translation>
            <numerusform>%n pack</numerusform>
            <numerusform>%n packs</numerusform>
        </translation>
    </message>
</context>
</TS>