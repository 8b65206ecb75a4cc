using System.Text.Json.Serialization;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Identification;
using Garten.Core.Seasons;

namespace Garten.Core.Confirmation;

/// <summary>What is checked.</summary>
[JsonConverter(typeof(CamelCaseWords<CheckKind>))]
public enum CheckKind
{
    /// <summary>How far the name leads.</summary>
    Lead,

    /// <summary>Whether the diagnostic characters were seen.</summary>
    Diagnostics,

    /// <summary>Whether look-alikes are excluded.</summary>
    LookAlikes,

    /// <summary>Whether anything seen conflicts.</summary>
    Conflicts,

    /// <summary>Organs and times of the year that were looked at.</summary>
    Coverage,

    /// <summary>Age, shaping and attachment of the material.</summary>
    Material,

    /// <summary>Whether what was seen is in season.</summary>
    Season,

    /// <summary>Whether it is recorded there.</summary>
    Presence,

    /// <summary>Whether it grows so high.</summary>
    Elevation,

    /// <summary>Whether it grows in such places.</summary>
    Habitat,

    /// <summary>Whether it grows there by itself.</summary>
    Origin,
}

/// <summary>How a check came out.</summary>
[JsonConverter(typeof(CamelCaseWords<CheckVerdict>))]
public enum CheckVerdict
{
    /// <summary>Nothing to object.</summary>
    Pass,

    /// <summary>It may be right, but wants explaining.</summary>
    Concern,

    /// <summary>It speaks against the name.</summary>
    Fail,

    /// <summary>It can't be said yet.</summary>
    Open,
}

/// <summary>A check.</summary>
/// <param name="Kind">What was checked.</param>
/// <param name="Verdict">How it came out.</param>
/// <param name="Reason">Why, as a sentence.</param>
/// <param name="Change">What would change it; empty for what passed.</param>
/// <param name="Explained">What the recorder says to it; empty where nothing.</param>
public sealed record ConfirmCheck(CheckKind Kind, CheckVerdict Verdict, string Reason, string Change, string Explained);

/// <summary>What the recorder says to a concern.</summary>
public sealed record Explanation(CheckKind Kind, string Text);

/// <summary>A taxon that this one is taken for.</summary>
/// <param name="Taxon">Its id.</param>
/// <param name="Odds">How many times as likely the name is as this one, by what was seen alone.</param>
/// <param name="IsExcluded">Whether it is excluded: 20 to 1, or by a character that separates the two cleanly.</param>
/// <param name="By">By what, strongest first; empty where it is open.</param>
/// <param name="Missing">Id of the character that would tell them apart; empty where it is excluded or nothing does.</param>
/// <param name="MissingText">The difference in words.</param>
/// <param name="When">When that can be seen: "now", or a stretch of the year.</param>
public sealed record LookAlikeCheck(
    string Taxon,
    double Odds,
    bool IsExcluded,
    IReadOnlyList<string> By,
    string Missing,
    string MissingText,
    string When
);

/// <summary>A diagnostic character of the name: one that sets it apart from what it is taken for.</summary>
/// <param name="Character">Its id.</param>
/// <param name="Text">What the taxon is like in it.</param>
/// <param name="IsSeen">Whether it was seen on this plant.</param>
/// <param name="When">For one that wasn't: when it can be seen, "now" or a stretch of the year.</param>
public sealed record Diagnostic(string Character, string Text, bool IsSeen, string When);

/// <summary>What is still to be answered, and when it can be.</summary>
/// <param name="Id">Identity within the plant.</param>
/// <param name="Character">Id of the character; empty where several will do.</param>
/// <param name="Text">What is to be looked at, in words.</param>
/// <param name="Windows">When; empty where it can't be answered outside a laboratory.</param>
public sealed record OpenNeed(string Id, string Character, string Text, IReadOnlyList<DayWindow> Windows);

/// <summary>Something to photograph, or to look at because a camera won't settle it.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Text">What to take, in a sentence.</param>
/// <param name="ByCamera">Whether a picture will settle it.</param>
/// <param name="CanBeSeen">Whether it can be seen now.</param>
public sealed record Shot(string Character, string Text, bool ByCamera, bool CanBeSeen);

/// <summary>What a plant can be reported as.</summary>
[JsonConverter(typeof(CamelCaseWords<ReportKind>))]
public enum ReportKind
{
    /// <summary>Nothing that the list holds.</summary>
    Undetermined,

    /// <summary>A species, or what is below it.</summary>
    Species,

    /// <summary>An aggregate.</summary>
    Aggregate,

    /// <summary>A genus.</summary>
    Genus,

    /// <summary>A family.</summary>
    Family,

    /// <summary>A hybrid of two.</summary>
    Hybrid,
}

/// <summary>What to report the plant as.</summary>
/// <param name="Kind">What kind of name it is.</param>
/// <param name="Taxon">Id of the taxon; empty for a hybrid formula or where nothing can be said.</param>
/// <param name="Name">The name.</param>
/// <param name="Probability">How probable it is that the plant is that, 0 to 1.</param>
/// <param name="Reason">Why so and no closer, in a sentence.</param>
public sealed record ReportAs(ReportKind Kind, string Taxon, string Name, double Probability, string Reason)
{
    /// <summary>Its probability in words.</summary>
    public string ProbabilityInWords => Quantities.Percent.OfProbability(Probability);
}

/// <summary>A hybrid that would explain what was seen better than either parent.</summary>
/// <param name="First">Id of a parent.</param>
/// <param name="Second">Id of the other.</param>
/// <param name="Name">The formula.</param>
/// <param name="OverParents">How many times as likely as the likelier parent, its rarity counted.</param>
/// <param name="Informative">How many characters tell the parents apart and were seen.</param>
/// <param name="Reasons">Where it stands between them, in words.</param>
public sealed record HybridSuggestion(
    string First,
    string Second,
    string Name,
    double OverParents,
    int Informative,
    IReadOnlyList<string> Reasons
);

/// <summary>A caution that holds for the name or for what it may still be.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Cautions">Which.</param>
/// <param name="Note">What they mean.</param>
public sealed record CautionLine(string Taxon, IReadOnlyList<Caution> Cautions, string Note)
{
    /// <summary>What to mind of a taxon; empty where there is nothing, or where the flora hasn't it.</summary>
    public static IReadOnlyList<CautionLine> Of(Taxon? taxon) =>
        taxon is { Cautions.Count: > 0 } ? [new CautionLine(taxon.Id, taxon.Cautions, taxon.CautionNote)] : [];
}

/// <summary>What is asked.</summary>
/// <param name="Taxon">The name to be confirmed.</param>
/// <param name="Observations">The sheet; superseded looks are passed over.</param>
/// <param name="Place">Where; null where unknown.</param>
/// <param name="Day">The day from which on is planned; null where it doesn't matter.</param>
/// <param name="Rules">The table of grades.</param>
/// <param name="IsPlanted">Whether this plant was planted; null where nobody said.</param>
/// <param name="Explanations">What the recorder says to concerns.</param>
/// <param name="IsSeconded">Whether a second person agrees.</param>
/// <param name="Plausible">Whether place and date weigh in.</param>
public sealed record ConfirmQuery(
    string Taxon,
    IReadOnlyList<Observation> Observations,
    SiftPlace? Place,
    DateOnly? Day,
    GradeRules Rules,
    bool? IsPlanted,
    IReadOnlyList<Explanation> Explanations,
    bool IsSeconded,
    bool Plausible
);

/// <summary>What stands for a name, and what is missing.</summary>
/// <param name="Taxon">The name that was to be confirmed.</param>
/// <param name="Grade">The grade it has.</param>
/// <param name="Rule">The rule that gave it, in words.</param>
/// <param name="Next">The next grade; null on the highest.</param>
/// <param name="MissingForNext">What is missing for it, in sentences.</param>
/// <param name="Probability">Probability of the name, 0 to 1.</param>
/// <param name="Cautions">What to mind before anything is touched.</param>
/// <param name="Checks">The checks.</param>
/// <param name="LookAlikes">What it is taken for.</param>
/// <param name="Diagnostics">The characters that count.</param>
/// <param name="ReportAs">What the plant can be reported as.</param>
/// <param name="Hybrid">A hybrid that explains it better; null for most.</param>
/// <param name="Shots">What to photograph, and what a camera can't settle.</param>
/// <param name="Needs">What is still to be answered, and when.</param>
public sealed record ConfirmResult(
    string Taxon,
    Grade Grade,
    string Rule,
    Grade? Next,
    IReadOnlyList<string> MissingForNext,
    double Probability,
    IReadOnlyList<CautionLine> Cautions,
    IReadOnlyList<ConfirmCheck> Checks,
    IReadOnlyList<LookAlikeCheck> LookAlikes,
    IReadOnlyList<Diagnostic> Diagnostics,
    ReportAs ReportAs,
    HybridSuggestion? Hybrid,
    IReadOnlyList<Shot> Shots,
    IReadOnlyList<OpenNeed> Needs
);
