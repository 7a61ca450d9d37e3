<?xml version='1.0' encoding='utf-8'?>
<TS version="2.1" language="en" sourcelanguage="en">
<context>
    <name>BaseWords</name>
    <message numerus="yes">
        <source>%n fixing(s) of %1 would go into cables or covered openings and find no place beside them: they are left out.</source>
        <translation>
            <numerusform>%n fixing of %1 would go into cables or covered openings and finds no place beside them: it is left out.</numerusform>
            <numerusform>%n fixings of %1 would go into cables or covered openings and find no place beside them: they are left out.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n crossing(s) want more than two packers give, up to %1: add thicker packers to the catalogue, or a second batten.</source>
        <translation>
            <numerusform>%n crossing wants more than two packers give, up to %1: add thicker packers to the catalogue, or a second batten.</numerusform>
            <numerusform>%n crossings want more than two packers give, up to %1: add thicker packers to the catalogue, or a second batten.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n place(s) with nothing behind</source>
        <translation>
            <numerusform>%n place with nothing behind</numerusform>
            <numerusform>%n places with nothing behind</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n packer(s) at %1 crossings; %2 of room lost on average, %3 left out of flat at worst</source>
        <translation>
            <numerusform>%n packer at %1 crossings; %2 of room lost on average, %3 left out of flat at worst</numerusform>
            <numerusform>%n packers at %1 crossings; %2 of room lost on average, %3 left out of flat at worst</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>CutPrint</name>
    <message numerus="yes">
        <source>%n whole, as they come: %1.</source>
        <translation>
            <numerusform>%n whole, as they come: %1.</numerusform>
            <numerusform>%n whole, as they come: %1.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>FinishWords</name>
    <message numerus="yes">
        <source>%n joint(s) lie too near one in the next row for the stagger asked for.</source>
        <translation>
            <numerusform>%n joint lies too near one in the next row for the stagger asked for.</numerusform>
            <numerusform>%n joints lie too near one in the next row for the stagger asked for.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>The surface tapers: %n board(s) that share it end at %1, under %2. Let %3 share it.</source>
        <translation>
            <numerusform>The surface tapers: %n board that takes it ends at %1, under %2. Let %3 share it.</numerusform>
            <numerusform>The surface tapers: %n boards that share it end at %1, under %2. Let %3 share it.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n board(s) in mid-field are ripped for the taper and lose a lock: re-groove or glue them.</source>
        <translation>
            <numerusform>%n board in mid-field is ripped for the taper and loses a lock: re-groove or glue it.</numerusform>
            <numerusform>%n boards in mid-field are ripped for the taper and lose a lock: re-groove or glue them.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n cut tile(s) are narrower than %1, the narrowest %2.</source>
        <translation>
            <numerusform>%n cut tile is narrower than %1, the narrowest %2.</numerusform>
            <numerusform>%n cut tiles are narrower than %1, the narrowest %2.</numerusform>
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
        <source>%n panel(s)</source>
        <translation>
            <numerusform>%n panel</numerusform>
            <numerusform>%n panels</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) fewer</source>
        <translation>
            <numerusform>%n piece fewer</numerusform>
            <numerusform>%n pieces fewer</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s)</source>
        <translation>
            <numerusform>%n piece</numerusform>
            <numerusform>%n pieces</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1 %n more seam(s), evenly spread, would do, %2.</source>
        <translation>
            <numerusform>%1 %n more seam, evenly spread, would do, %2.</numerusform>
            <numerusform>%1 %n more seams, evenly spread, would do, %2.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>FitWords</name>
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
        <source>%n rib(s) and batten(s): measured from the datum and photographed. Afterwards this map is the only way to find them.</source>
        <translation>
            <numerusform>%n rib and batten: measured from the datum and photographed. Afterwards this map is the only way to find them.</numerusform>
            <numerusform>%n ribs and battens: measured from the datum and photographed. Afterwards this map is the only way to find them.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n opening(s) will be covered: pull the tails through and write down where the middles are.</source>
        <translation>
            <numerusform>%n opening will be covered: pull the tails through and write down where the middles are.</numerusform>
            <numerusform>%n openings will be covered: pull the tails through and write down where the middles are.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %2 in all in %n strip(s), %3 over each other, taped.</source>
        <translation>
            <numerusform>%1: %2 in all in %n strip, %3 over each other, taped.</numerusform>
            <numerusform>%1: %2 in all in %n strips, %3 over each other, taped.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: about %n board(s), flat and open in the van for two days. Sort them: the loud ones apart, the bent ones for short pieces.</source>
        <translation>
            <numerusform>%1: about %n board, flat and open in the van for two days. Sort them: the loud ones apart, the bent ones for short pieces.</numerusform>
            <numerusform>%1: about %n boards, flat and open in the van for two days. Sort them: the loud ones apart, the bent ones for short pieces.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n opening(s): find the frame behind, drill, and rout flush to it.</source>
        <translation>
            <numerusform>%n opening: find the frame behind, drill, and rout flush to it.</numerusform>
            <numerusform>%n openings: find the frame behind, drill, and rout flush to it.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %n panel(s), in the order that Cut gives. Outdoors or in a workshop.</source>
        <translation>
            <numerusform>%1: %n panel, in the order that Cut gives. Outdoors or in a workshop.</numerusform>
            <numerusform>%1: %n panels, in the order that Cut gives. Outdoors or in a workshop.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n joint(s)</source>
        <translation>
            <numerusform>%n joint</numerusform>
            <numerusform>%n joints</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n whole tile(s) in flexible adhesive, joints of %1.</source>
        <translation>
            <numerusform>%n whole tile in flexible adhesive, joints of %1.</numerusform>
            <numerusform>%n whole tiles in flexible adhesive, joints of %1.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n whole tile(s). Primed and clean ground; press from the middle, no second try.</source>
        <translation>
            <numerusform>%n whole tile. Primed and clean ground; press from the middle, no second try.</numerusform>
            <numerusform>%n whole tiles. Primed and clean ground; press from the middle, no second try.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) out of %1 tiles. Sawn edges to the wall, factory edges to the joint.</source>
        <translation>
            <numerusform>%n piece out of %1 tiles. Sawn edges to the wall, factory edges to the joint.</numerusform>
            <numerusform>%n pieces out of %1 tiles. Sawn edges to the wall, factory edges to the joint.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s) of %1, as Cut lays them out; mark the pile and the name on the back of each.</source>
        <translation>
            <numerusform>%n piece of %1, as Cut lays them out; mark the pile and the name on the back of each.</numerusform>
            <numerusform>%n pieces of %1, as Cut lays them out; mark the pile and the name on the back of each.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n seam(s), %1 in all: lapped by %2, the upper piece away from wet and traffic; seal them.</source>
        <translation>
            <numerusform>%n seam, %1 in all: lapped by %2, the upper piece away from wet and traffic; seal them.</numerusform>
            <numerusform>%n seams, %1 in all: lapped by %2, the upper piece away from wet and traffic; seal them.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n seam(s), %1 in all: both pieces lie %2 over each other; cut through both at once along a rule, take the strips out, press the edges down; seal or weld vinyl.</source>
        <translation>
            <numerusform>%n seam, %1 in all: both pieces lie %2 over each other; cut through both at once along a rule, take the strips out, press the edges down; seal or weld vinyl.</numerusform>
            <numerusform>%n seams, %1 in all: both pieces lie %2 over each other; cut through both at once along a rule, take the strips out, press the edges down; seal or weld vinyl.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n panel(s): face down on the lining, corners cut out, opposite sides pulled round by %1 and stuck or stapled, middle first.</source>
        <translation>
            <numerusform>%n panel: face down on the lining, corners cut out, opposite sides pulled round by %1 and stuck or stapled, middle first.</numerusform>
            <numerusform>%n panels: face down on the lining, corners cut out, opposite sides pulled round by %1 and stuck or stapled, middle first.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n clip(s), %1 apart at most, each into a hole that is marked through the panel before it is wrapped.</source>
        <translation>
            <numerusform>%n clip, %1 apart at most, each into a hole that is marked through the panel before it is wrapped.</numerusform>
            <numerusform>%n clips, %1 apart at most, each into a hole that is marked through the panel before it is wrapped.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n window(s): wet both, lay it from the top, press the water out from the middle, trim 2 mm short of the rubber.</source>
        <translation>
            <numerusform>%n window: wet both, lay it from the top, press the water out from the middle, trim 2 mm short of the rubber.</numerusform>
            <numerusform>%n windows: wet both, lay it from the top, press the water out from the middle, trim 2 mm short of the rubber.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n piece(s), %1 in all, after all neighbours are in.</source>
        <translation>
            <numerusform>%n piece, %1 in all, after all neighbours are in.</numerusform>
            <numerusform>%n pieces, %1 in all, after all neighbours are in.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n end(s) mitred: try each pair on scrap.</source>
        <translation>
            <numerusform>%n end mitred: try each pair on scrap.</numerusform>
            <numerusform>%n ends mitred: try each pair on scrap.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n end(s) coped.</source>
        <translation>
            <numerusform>%n end coped.</numerusform>
            <numerusform>%n ends coped.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n block(s), with a long blade or a bread knife against a straight edge.</source>
        <translation>
            <numerusform>%n block, with a long blade or a bread knife against a straight edge.</numerusform>
            <numerusform>%n blocks, with a long blade or a bread knife against a straight edge.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n panel(s) of %1, as Cut lays them out; chalk the notches and the names on the back.</source>
        <translation>
            <numerusform>%n panel of %1, as Cut lays them out; chalk the notches and the names on the back.</numerusform>
            <numerusform>%n panels of %1, as Cut lays them out; chalk the notches and the names on the back.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Foam on the board, cloth over it, pulled round by %1: middle of each side first, corners last. %n staple(s).</source>
        <translation>
            <numerusform>Foam on the board, cloth over it, pulled round by %1: middle of each side first, corners last. %n staple.</numerusform>
            <numerusform>Foam on the board, cloth over it, pulled round by %1: middle of each side first, corners last. %n staples.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Panel %1, side of %2: %n clip(s), the first %3 from its end, then every %4.</source>
        <translation>
            <numerusform>Panel %1, side of %2: %n clip, the first %3 from its end, then every %4.</numerusform>
            <numerusform>Panel %1, side of %2: %n clips, the first %3 from its end, then every %4.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %n piece(s), %2 in all. Pre-drill; check each with a straight edge.</source>
        <translation>
            <numerusform>%1: %n piece, %2 in all. Pre-drill; check each with a straight edge.</numerusform>
            <numerusform>%1: %n pieces, %2 in all. Pre-drill; check each with a straight edge.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source> %n place(s) in all.</source>
        <translation>
            <numerusform> %n place in all.</numerusform>
            <numerusform> %n places in all.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Card, cut and taped until it drops in: %n template(s). Mark which face is seen, and up.</source>
        <translation>
            <numerusform>Card, cut and taped until it drops in: %n template. Mark which face is seen, and up.</numerusform>
            <numerusform>Card, cut and taped until it drops in: %n templates. Mark which face is seen, and up.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n hole(s), on the bench: once the panel is up, nothing can be drilled from behind.</source>
        <translation>
            <numerusform>%n hole, on the bench: once the panel is up, nothing can be drilled from behind.</numerusform>
            <numerusform>%n holes, on the bench: once the panel is up, nothing can be drilled from behind.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n place(s), once the coat is dry. Mains and gas are for a licensed trade.</source>
        <translation>
            <numerusform>%n place, once the coat is dry. Mains and gas are for a licensed trade.</numerusform>
            <numerusform>%n places, once the coat is dry. Mains and gas are for a licensed trade.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source> %n joint(s) in strips longer than a roll: butted, never where one treads most.</source>
        <translation>
            <numerusform> %n joint in strips longer than a roll: butted, never where one treads most.</numerusform>
            <numerusform> %n joints in strips longer than a roll: butted, never where one treads most.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source> %n piece(s), as Cut lays them out.</source>
        <translation>
            <numerusform> %n piece, as Cut lays them out.</numerusform>
            <numerusform> %n pieces, as Cut lays them out.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>ImportPreview</name>
    <message numerus="yes">
        <source>%n notch(es) or corner(s) cut out of the old outline go with it.</source>
        <translation>
            <numerusform>%n notch(es) or corner cut out of the old outline go with it.</numerusform>
            <numerusform>%n notch(es) or corners cut out of the old outline go with it.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n opening(s) of the old outline go with it.</source>
        <translation>
            <numerusform>%n opening of the old outline go with it.</numerusform>
            <numerusform>%n openings of the old outline go with it.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>PlanText</name>
    <message numerus="yes">
        <source>%n piece(s)</source>
        <translation>
            <numerusform>%n piece</numerusform>
            <numerusform>%n pieces</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>RecordWords</name>
    <message numerus="yes">
        <source>%1: %n step(s) done took %2, planned %3. Use %4?</source>
        <translation>
            <numerusform>%1: %n step done took %2, planned %3. Use %4?</numerusform>
            <numerusform>%1: %n steps done took %2, planned %3. Use %4?</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %n container(s) covered %2 each, planned %3. Use %4?</source>
        <translation>
            <numerusform>%1: %n container covered %2 each, planned %3. Use %4?</numerusform>
            <numerusform>%1: %n containers covered %2 each, planned %3. Use %4?</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Of %n cut(s) %1 were spoilt, planned %2. Use %3?</source>
        <translation>
            <numerusform>Of %n cut %1 were spoilt, planned %2. Use %3?</numerusform>
            <numerusform>Of %n cuts %1 were spoilt, planned %2. Use %3?</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n more must be bought, %1.</source>
        <translation>
            <numerusform>%n more must be bought, %1.</numerusform>
            <numerusform>%n more must be bought, %1.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n more must be bought.</source>
        <translation>
            <numerusform>%n more must be bought.</numerusform>
            <numerusform>%n more must be bought.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: %n step(s) done took %2 times what was planned. Use %3 instead of %4, and %5 a piece instead of %6?</source>
        <translation>
            <numerusform>%1: %n step done took %2 times what was planned. Use %3 instead of %4, and %5 a piece instead of %6?</numerusform>
            <numerusform>%1: %n steps done took %2 times what was planned. Use %3 instead of %4, and %5 a piece instead of %6?</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1: beside %n container(s) emptied, %2 of it was thrown away, planned %3. Use %4?</source>
        <translation>
            <numerusform>%1: beside %n container emptied, %2 of it was thrown away, planned %3. Use %4?</numerusform>
            <numerusform>%1: beside %n containers emptied, %2 of it was thrown away, planned %3. Use %4?</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n reading(s) were off by %1; with all those that were not, a reading errs by %2. Use that instead of %3?</source>
        <translation>
            <numerusform>%n reading was off by %1; with all those that were not, a reading errs by %2. Use that instead of %3?</numerusform>
            <numerusform>%n readings were off by %1; with all those that were not, a reading errs by %2. Use that instead of %3?</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>ShoppingPrint</name>
    <message numerus="yes">
        <source>and %n more</source>
        <translation>
            <numerusform>and %n more</numerusform>
            <numerusform>and %n more</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>TookPrint</name>
    <message numerus="yes">
        <source>Work was written down on %n day(s), from %1 to %2.</source>
        <translation>
            <numerusform>Work was written down on %n day, from %1 to %2.</numerusform>
            <numerusform>Work was written down on %n days, from %1 to %2.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>TrimWords</name>
    <message numerus="yes">
        <source>, in %n piece(s)</source>
        <translation>
            <numerusform>, in %n piece</numerusform>
            <numerusform>, in %n pieces</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>Words</name>
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
    <message numerus="yes">
        <source>%n container(s)</source>
        <translation>
            <numerusform>%n container</numerusform>
            <numerusform>%n containers</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n board(s)</source>
        <translation>
            <numerusform>%n board</numerusform>
            <numerusform>%n boards</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n tile(s)</source>
        <translation>
            <numerusform>%n tile</numerusform>
            <numerusform>%n tiles</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n staple(s)</source>
        <translation>
            <numerusform>%n staple</numerusform>
            <numerusform>%n staples</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n cartridge(s)</source>
        <translation>
            <numerusform>%n cartridge</numerusform>
            <numerusform>%n cartridges</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n screw(s)</source>
        <translation>
            <numerusform>%n screw</numerusform>
            <numerusform>%n screws</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n rivet nut(s)</source>
        <translation>
            <numerusform>%n rivet nut</numerusform>
            <numerusform>%n rivet nuts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n machine screw(s)</source>
        <translation>
            <numerusform>%n machine screw</numerusform>
            <numerusform>%n machine screws</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n washer(s)</source>
        <translation>
            <numerusform>%n washer</numerusform>
            <numerusform>%n washers</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n screw cup(s)</source>
        <translation>
            <numerusform>%n screw cup</numerusform>
            <numerusform>%n screw cups</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n panel clip(s)</source>
        <translation>
            <numerusform>%n panel clip</numerusform>
            <numerusform>%n panel clips</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n corner block(s)</source>
        <translation>
            <numerusform>%n corner block</numerusform>
            <numerusform>%n corner blocks</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n other(s) could be, too.</source>
        <translation>
            <numerusform>%n other could be, too.</numerusform>
            <numerusform>%n others could be, too.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n expanding nut(s)</source>
        <translation>
            <numerusform>%n expanding nut</numerusform>
            <numerusform>%n expanding nuts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n packer(s)</source>
        <translation>
            <numerusform>%n packer</numerusform>
            <numerusform>%n packers</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n batt(s)</source>
        <translation>
            <numerusform>%n batt</numerusform>
            <numerusform>%n batts</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>WorkWords</name>
    <message numerus="yes">
        <source>%1 takes %n pair(s) of hands, and no time that is left has so many.</source>
        <translation>
            <numerusform>%1 takes %n pair of hands, and no time that is left has one.</numerusform>
            <numerusform>%1 takes %n pairs of hands, and no time that is left has so many.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::BaseView</name>
    <message numerus="yes">
        <source>%n batten(s), %1 in all; %2</source>
        <translation>
            <numerusform>%n batten, %1 in all; %2</numerusform>
            <numerusform>%n battens, %1 in all; %2</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n place(s) along its edges have nothing behind them: put a batten there, or leave those out.</source>
        <translation>
            <numerusform>%n place along its edges has nothing behind it: put a batten there, or leave it out.</numerusform>
            <numerusform>%n places along its edges have nothing behind them: put a batten there, or leave those out.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>Every fixing has its place; %n hole(s) are drilled before it goes up.</source>
        <translation>
            <numerusform>Every fixing has its place; %n hole is drilled before it goes up.</numerusform>
            <numerusform>Every fixing has its place; %n holes are drilled before it goes up.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::BodyBar</name>
    <message numerus="yes">
        <source>From “%1”: %n surface(s) are still as they were measured there.</source>
        <translation>
            <numerusform>From “%1”: %n surface is still as it was measured there.</numerusform>
            <numerusform>From “%1”: %n surfaces are still as they were measured there.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::BuildUpPage</name>
    <message numerus="yes">
        <source>%n layer(s) from the metal inwards</source>
        <translation>
            <numerusform>%n layer from the metal inwards</numerusform>
            <numerusform>%n layers from the metal inwards</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::BuyPage</name>
    <message numerus="yes">
        <source>%n offcut(s) free on the rack</source>
        <translation>
            <numerusform>%n offcut free on the rack</numerusform>
            <numerusform>%n offcuts free on the rack</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n on the shelf past its date</source>
        <translation>
            <numerusform>%n on the shelf past its date</numerusform>
            <numerusform>%n on the shelf past their date</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::CataloguePanel</name>
    <message numerus="yes">
        <source>%n product(s) taken in.</source>
        <translation>
            <numerusform>%n product taken in.</numerusform>
            <numerusform>%n products taken in.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>And %n more line(s).</source>
        <translation>
            <numerusform>And %n more line.</numerusform>
            <numerusform>And %n more lines.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::CompareView</name>
    <message numerus="yes">
        <source>changes %n surface(s)</source>
        <translation>
            <numerusform>changes %n surface</numerusform>
            <numerusform>changes %n surfaces</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n thing(s)</source>
        <translation>
            <numerusform>%n thing</numerusform>
            <numerusform>%n things</numerusform>
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
    <name>westrum::EdgeView</name>
    <message numerus="yes">
        <source>%n trim(s) close its edges, %1 together. Point at one, or at a joint.</source>
        <translation>
            <numerusform>%n trim closes its edges, %1 together. Point at one, or at a joint.</numerusform>
            <numerusform>%n trims close its edges, %1 together. Point at one, or at a joint.</numerusform>
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
    <name>westrum::LearnedView</name>
    <message numerus="yes">
        <source>%n more container(s), %1.</source>
        <translation>
            <numerusform>%n more container, %1.</numerusform>
            <numerusform>%n more containers, %1.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n fewer container(s), %1 less.</source>
        <translation>
            <numerusform>%n fewer container, %1 less.</numerusform>
            <numerusform>%n fewer containers, %1 less.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::LogPage</name>
    <message numerus="yes">
        <source>%n thing(s) written down.</source>
        <translation>
            <numerusform>%n thing written down.</numerusform>
            <numerusform>%n things written down.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n rate(s) to look at: the next plan is the better for each.</source>
        <translation>
            <numerusform>%n rate to look at: the next plan is the better for each.</numerusform>
            <numerusform>%n rates to look at: the next plan is the better for each.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n offcut(s) are free: plans of this job cut from those that you take for it first.</source>
        <translation>
            <numerusform>%n offcut is free: plans of this job cut from those that you take for it first.</numerusform>
            <numerusform>%n offcuts are free: plans of this job cut from those that you take for it first.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1 of %2, %n spoilt</source>
        <translation>
            <numerusform>%1 of %2, %n spoilt</numerusform>
            <numerusform>%1 of %2, %n spoilt</numerusform>
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
    <message numerus="yes">
        <source>Work that was never saved is there from before: %n job(s).</source>
        <translation>
            <numerusform>Work that was never saved is there from before: %n job.</numerusform>
            <numerusform>Work that was never saved is there from before: %n jobs.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::MassView</name>
    <message numerus="yes">
        <source>%n surface(s) taken to stand mid-floor (dashed): drag them to where they are.</source>
        <translation>
            <numerusform>%n surface taken to stand mid-floor (dashed): drag them to where they are.</numerusform>
            <numerusform>%n surfaces taken to stand mid-floor (dashed): drag them to where they are.</numerusform>
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
    <message numerus="yes">
        <source>%1, %n surface(s)</source>
        <translation>
            <numerusform>%1, %n surface</numerusform>
            <numerusform>%1, %n surfaces</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::OptionsBox</name>
    <message numerus="yes">
        <source>%n piece(s)</source>
        <translation>
            <numerusform>%n piece</numerusform>
            <numerusform>%n pieces</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n remark(s)</source>
        <translation>
            <numerusform>%n remark</numerusform>
            <numerusform>%n remarks</numerusform>
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
    <name>westrum::PlaceTicks</name>
    <message numerus="yes">
        <source>%1 of %n place(s) not ticked; press each as it is done</source>
        <translation>
            <numerusform>%1 of %n place not ticked; press each as it is done</numerusform>
            <numerusform>%1 of %n places not ticked; press each as it is done</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::PricesView</name>
    <message numerus="yes">
        <source>%n line(s) left out in all.</source>
        <translation>
            <numerusform>%n line left out in all.</numerusform>
            <numerusform>%n lines left out in all.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n line(s) read.</source>
        <translation>
            <numerusform>%n line read.</numerusform>
            <numerusform>%n lines read.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n change(s):</source>
        <translation>
            <numerusform>%n change:</numerusform>
            <numerusform>%n changes:</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::RackView</name>
    <message numerus="yes">
        <source>%1: %n piece(s)</source>
        <translation>
            <numerusform>%1: %n piece</numerusform>
            <numerusform>%1: %n pieces</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n offcut(s) taken in.</source>
        <translation>
            <numerusform>%n offcut taken in.</numerusform>
            <numerusform>%n offcuts taken in.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n left out: this job's catalogue has no product of that name.</source>
        <translation>
            <numerusform>%n left out: this job's catalogue has no product of that name.</numerusform>
            <numerusform>%n left out: this job's catalogue has no product of that name.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::RollStrip</name>
    <message numerus="yes">
        <source>%n piece(s) find no room on it.</source>
        <translation>
            <numerusform>%n piece finds no room on it.</numerusform>
            <numerusform>%n pieces find no room on it.</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1 off the roll for the whole van, %n piece(s) of it for this surface.</source>
        <translation>
            <numerusform>%1 off the roll for the whole van, %n piece of it for this surface.</numerusform>
            <numerusform>%1 off the roll for the whole van, %n pieces of it for this surface.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::SetOutPage</name>
    <message numerus="yes">
        <source>%n piece(s)</source>
        <translation>
            <numerusform>%n piece</numerusform>
            <numerusform>%n pieces</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n joint(s)</source>
        <translation>
            <numerusform>%n joint</numerusform>
            <numerusform>%n joints</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n off support</source>
        <translation>
            <numerusform>%n off support</numerusform>
            <numerusform>%n off support</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n in line</source>
        <translation>
            <numerusform>%n in line</numerusform>
            <numerusform>%n in line</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n sliver(s)</source>
        <translation>
            <numerusform>%n sliver</numerusform>
            <numerusform>%n slivers</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>lines miss %n neighbour(s)</source>
        <translation>
            <numerusform>lines miss %n neighbour</numerusform>
            <numerusform>lines miss %n neighbours</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n seam(s), %1 in all, %2 of it seen</source>
        <translation>
            <numerusform>%n seam, %1 in all, %2 of it seen</numerusform>
            <numerusform>%n seams, %1 in all, %2 of it seen</numerusform>
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
<context>
    <name>westrum::TodayView</name>
    <message numerus="yes">
        <source>%1, %2 to %3: %n piece(s) of work can be done.</source>
        <translation>
            <numerusform>%1, %2 to %3: %n piece of work can be done.</numerusform>
            <numerusform>%1, %2 to %3: %n pieces of work can be done.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::VanView</name>
    <message numerus="yes">
        <source>%1 to %2, in %n part(s)</source>
        <translation>
            <numerusform>%1 to %2, in %n part</numerusform>
            <numerusform>%1 to %2, in %n parts</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n day(s) later</source>
        <translation>
            <numerusform>%n day later</numerusform>
            <numerusform>%n days later</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%n day(s) sooner</source>
        <translation>
            <numerusform>%n day sooner</numerusform>
            <numerusform>%n days sooner</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>%1 %n more thing(s) have no place for it.</source>
        <translation>
            <numerusform>%1 %n more thing has no place for it.</numerusform>
            <numerusform>%1 %n more things have no place for it.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::WorkSetup</name>
    <message numerus="yes">
        <source>%n line(s) could not be read. %1</source>
        <translation>
            <numerusform>%n line could not be read. %1</numerusform>
            <numerusform>%n lines could not be read. %1</numerusform>
        </translation>
    </message>
    <message numerus="yes">
        <source>A forecast for %n day(s), %1 to %2; after it each day is taken as its month usually is.</source>
        <translation>
            <numerusform>A forecast for %n day, %1 to %2; after it each day is taken as its month usually is.</numerusform>
            <numerusform>A forecast for %n days, %1 to %2; after it each day is taken as its month usually is.</numerusform>
        </translation>
    </message>
</context>
<context>
    <name>westrum::WorkStrip</name>
    <message numerus="yes">
        <source>It covers what is behind it: %n thing(s) to look at before.</source>
        <translation>
            <numerusform>It covers what is behind it: %n thing to look at before.</numerusform>
            <numerusform>It covers what is behind it: %n things to look at before.</numerusform>
        </translation>
    </message>
</context>
</TS>