using System.Text.RegularExpressions;

namespace Garten.Core.Keys;

/// <summary>Patterns of key text. Each is short, anchored or bounded, so that no text makes it slow.</summary>
internal static partial class KeyTextPatterns
{
    // "(p. 12)", ", p. 12", "page 12–14", "(fig. 3)", "[Plate 4]" at the end.
    [GeneratedRegex(
        @"[,;]?\s*[\(\[]?\s*\b(?:(?:pp?|pages?|pg)\b\.?\s{0,3}(\d{1,5}(?:\s?[–-]\s?\d{1,5})?)|((?:figs?|figures?|plates?|pl)\b\.?\s{0,3}\d{1,5}[a-z]?))\s*[\)\]]?\.?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex PageHint();

    // "2", "(2)", "2a", "go to 2", "see couplet 2", "No. 2", "2 (Section Alatae)".
    [GeneratedRegex(
        @"^((?:(?:go|goes|going|see|return|proceed|continue|turn|back|on|with|at|to|couplet|lead|step|question|no\.?|nr\.?|number|#|key|group)\s*){0,6})[\(\[]?(\d{1,5})(?:[a-h]|['’′*]{1,2})?[\)\]]?[.:]?(?:\s+\([^()]{1,60}\))?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex CoupletNumber();

    // "B", "BB", "go to B".
    [GeneratedRegex(@"^(?:(?:[Gg]o|[Ss]ee|to|couplet)\s+){0,3}([A-Za-z])\1{0,2}['’′*]{0,2}[.:)]?$", RegexOptions.CultureInvariant)]
    public static partial Regex CoupletLetter();

    [GeneratedRegex(
        @"^(?:(?:please|then|now|go|goes|see|to|continue|proceed|turn|under|with|at|in|the)\s+){0,6}",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex GoTo();

    // A whole text that names a key: "Key B", "Key to the genera of …", "Subkey 2", "Group IV".
    [GeneratedRegex(
        @"^(?:sub-?)?key\b.{0,160}$|^(?:group|section|part|table)\s+(?:[A-Z]|\d{1,3}|[IVX]{1,5})\b.{0,80}$|^.{1,80}\s(?:sub-?)?key$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex KeyName();

    // A key that is named behind a taxon: "Vellorna (Key B)", "Vellorna, go to Key to Vellorna".
    [GeneratedRegex(
        @"^.{1,120}?[\(,:;–—-]\s*(?:(?:go|see|to)\s+){0,3}((?:[Ss]ub-?)?(?:[Kk]ey|KEY)\s[^\)]{1,100})\)?$",
        RegexOptions.CultureInvariant
    )]
    public static partial Regex KeyNameBehind();

    // The same behind a single space: "… needle-like go to Key to Conifers", "… needle-like Key B".
    [GeneratedRegex(
        @"(?:^|[\s.;,\(\[])((?:(?:[Gg]o|[Ss]ee)\s+(?:to\s+)?(?:the\s+)?)?(?:(?:[Ss]ub-?)?[Kk]ey\s+(?:[A-Z0-9]{1,3}|(?:to|for)\s[^;.]{2,100})|KEY\s+(?:[A-Z0-9]{1,3}|TO\s[^;.]{2,100})|Group\s+(?:[A-Z]|\d{1,3}|[IVX]{1,5})|GROUP\s+(?:[A-Z]|\d{1,3}|[IVX]{1,5})))[\)\]]?\.?$",
        RegexOptions.CultureInvariant
    )]
    public static partial Regex KeyReferenceAtEnd();

    [GeneratedRegex(@"^\(?\d+\)?$", RegexOptions.CultureInvariant)]
    public static partial Regex OnlyNumber();

    // " 2", " (2)", "opposite.2", " go to 2" at the end.
    [GeneratedRegex(
        @"(?:(?<go>\s\(?(?:(?:[Gg]o|[Ss]ee|[Rr]eturn|[Pp]roceed|[Cc]ontinue|[Tt]urn|[Cc]ouplet)\s+)(?:(?:to|with|at|back|couplet|step|no\.?|lead)\s+){0,3})|\s|(?<=[A-Za-z][.;:)]))[\(\[]?(?<n>\d{1,5})(?:[a-h]|['’′*]{1,2})?[\)\]]{0,2}\.?$",
        RegexOptions.CultureInvariant
    )]
    public static partial Regex NumberAtEnd();

    // "Vellorna alba 2n = 24" at the end.
    [GeneratedRegex(@"[\s,;(\[]+(2n\s?=\s?\d[\d, –-]*)[)\]]?\.?$", RegexOptions.CultureInvariant)]
    public static partial Regex Chromosomes();

    // What makes the number behind it one of a figure.
    [GeneratedRegex(@"\b(?:figs?|figures?|pl|plates?|tab|maps?|photos?)\.?$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    public static partial Regex FigureBefore();

    // Behind a couplet's number where a page stood, or a word for which way to turn: "3 on", "see 3 below", "go to 3 overleaf".
    [GeneratedRegex(
        @"^(?:(?:go|goes|see|to|back|couplet|lead|step|question|no\.?|number)\s+){0,4}[\(\[]?\d{1,5}[a-h]?['’]?[\)\]]?(?<way>\s*[,(]?\s*(?:on|at|see|below|above|overleaf|opposite|(?:on\s+)?(?:the\s+)?(?:next|following|facing|previous)\s+(?:page|column))\)?)\.?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex WayBehindNumber();

    // The same behind a statement, where the number is said to be gone to.
    [GeneratedRegex(
        @"\b(?:go|see|couplet|lead|step)\s+(?:(?:to|back|couplet|lead|step|no\.?)\s+){0,3}\d{1,5}[a-h]?['’]?(?<way>\s*[,(]?\s*(?:on|at|below|above|overleaf|opposite|(?:on\s+)?(?:the\s+)?(?:next|following|facing|previous)\s+(?:page|column))\)?)\.?$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex WayBehindGoTo();

    // A blank before the stop of a label at the start of a line, or of an abbreviated genus.
    [GeneratedRegex(
        @"^\s*\d{1,4}[a-h]?['’]?\s{1,2}[.)](?=\s)|(?<=^|[\s(\[*_])\p{Lu}\p{Ll}?\s{1,2}\.(?=\s*\p{Ll}{3})",
        RegexOptions.CultureInvariant
    )]
    public static partial Regex BlankBeforeStop();

    // "12. Vellorna alba": the taxon's number in the flora.
    [GeneratedRegex(@"^\(?\d{1,4}[a-z]?[.)]{1,2}\s+(?=[A-Z×*_x])", RegexOptions.CultureInvariant)]
    public static partial Regex SerialNumber();

    // Nouns and adjectives that open a statement with a capital letter.
    [GeneratedRegex(
        @"^(?:leaf|leaves|leaflets?|blades?|twigs?|buds?|bark|stems?|trunks?|branch(?:es|lets)?|shoots?|roots?|rhizomes?|bulbs?|tubers?|corms?|flowers?|florets?|spikelets?|spikes?|panicles?|racemes?|umbels?|heads?|catkins?|cones?|fruits?|berry|berries|drupes?|nuts?|nutlets?|achenes?|capsules?|pods?|samaras?|seeds?|petals?|sepals?|tepals?|corolla|calyx|bracts?|bracteoles?|stamens?|anthers?|filaments?|styles?|stigmas?|ovary|ovaries|carpels?|pistils?|perianth|inflorescences?|cymes?|petioles?|petiolules?|pedicels?|peduncles?|stipules?|ligules?|sheaths?|margins?|base|bases|apex|apices|tips?|veins?|nerves?|teeth|lobes?|hairs?|glands?|spines?|thorns?|prickles?|scales?|scars?|lenticels?|pith|latex|sap|plants?|herbs?|trees?|shrubs?|climbers?|annuals?|perennials?|evergreens?|deciduous|habit|crown|wood|needles?|fronds?|pinnae|pinnules?|sori|indusi(?:a|um)|spores?|surface|upper|lower|inner|outer|terminal|lateral|all|both|not|without|with|usually|often|rarely|mostly|growing|native|found|surfaces?|internodes?|nodes?|tendrils?|glumes?|lemmas?|awns?|utricles?|culms?|receptacle|involucre|phyllaries|rays?|discs?|disks?|flowering|fruiting|male|female|young|mature|old|fresh|dry|basal|cauline|stem|receptacles?|odou?r|scent|colou?r)$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex StatementNoun();

    // A line that names a key: "KEY B", "Key to …", "Subkey 2", "Group A. Conifers", "# Winter twigs".
    [GeneratedRegex(
        @"^(?:#{1,6}\s+\S|(?:[A-Z0-9]{1,3}[.:)]\s+)?(?:(?:[A-Z]\w*\s+){0,4})(?:sub-?)?key\b|(?:group|section|part)\s+(?:[A-Z]|\d{1,3}|[IVX]{1,5})\b)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    public static partial Regex TitleLine();

    // What stands alone between two leads.
    [GeneratedRegex(@"^\s*(?:vs\.?|versus|or|oder|ou|[-–—_=*]{3,})\s*$", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    public static partial Regex BetweenLeads();

    // What a bare number is the quantity of: "2 mm", "3 pairs of", "5 or more".
    [GeneratedRegex(
        @"^\(?(?:µm|mm|cm|dm|m|km|in|ft|inch(?:es)?|feet|metres?|meters?|x|to|or|and|pairs?|times|veins?|nerves?|teeth|lobes?|stamens?|styles?|petals?|sepals?|leaflets?|leaves|flowers?|seeds?|cells?|rows?|parts?|together|wide|long|tall|high|across|broad|thick|diam|of|in|years?|weeks?|scales?|scars?|more|fewer|small|large|whorls?|per|on|at|equal|unequal|pores?|ribs?|angled|merous)\b",
        RegexOptions.CultureInvariant
    )]
    public static partial Regex QuantityNoun();
}
