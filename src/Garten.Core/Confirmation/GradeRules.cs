using System.Text.Json.Serialization;

namespace Garten.Core.Confirmation;

/// <summary>How well a name stands, from least to most.</summary>
[JsonConverter(typeof(CamelCaseWords<Grade>))]
public enum Grade
{
    /// <summary>A name and no more.</summary>
    Tentative,

    /// <summary>There are reasons for it.</summary>
    Reasoned,

    /// <summary>The evidence is much against all other names.</summary>
    Corroborated,

    /// <summary>All that can be seen outside a laboratory has been, and it leaves no other name.</summary>
    Confirmed,

    /// <summary>A second person agrees.</summary>
    Verified,
}

/// <summary>What a grade asks for.</summary>
/// <param name="Grade">The grade.</param>
/// <param name="Characters">Characters that were looked at and count.</param>
/// <param name="Organs">Organs that they are of.</param>
/// <param name="Phenophases">Times of the plant's year that they are from: winter twig, spring, leaf, flower, fruit.</param>
/// <param name="OverNext">How many times as likely as the next name it must be; 1: not asked for.</param>
/// <param name="OverAll">How many times as likely as all other names together, "not on this list" among them; 0: not asked for.</param>
/// <param name="Diagnostics">Share of the diagnostic characters that must have been seen, 0 to 1.</param>
/// <param name="LookAlikesExcluded">Whether every look-alike must be excluded.</param>
/// <param name="NoConflict">Whether no look may be in conflict unexplained.</param>
/// <param name="NoFail">Whether no check may fail.</param>
/// <param name="NoConcern">Whether no concern may be left unexplained.</param>
/// <param name="UnlessSureInOne">Whether a taxon that shows its characters at one time of the year only needs no second one.</param>
public sealed record GradeRule(
    Grade Grade,
    int Characters = 0,
    int Organs = 0,
    int Phenophases = 0,
    double OverNext = 1,
    double OverAll = 0,
    double Diagnostics = 0,
    bool LookAlikesExcluded = false,
    bool NoConflict = false,
    bool NoFail = false,
    bool NoConcern = false,
    bool UnlessSureInOne = true
);

/// <summary>A table of what each grade asks for. A survey chooses one; two ship, and any other can be given.</summary>
/// <param name="Id">Identity.</param>
/// <param name="Name">Its name.</param>
/// <param name="Text">What it is for, in a sentence.</param>
/// <param name="Rules">A rule each for reasoned, corroborated and confirmed, in this order; each asks for all that the ones before it ask
/// for as well.</param>
public sealed record GradeRules(string Id, string Name, string Text, IReadOnlyList<GradeRule> Rules)
{
    // Nothing on earth has more.
    private const int MostOrgans = 11;
    private const int MostPhenophases = 5;
    private const int MostCharacters = 200;

    /// <summary>For records that must stand: several organs, several seasons, every look-alike excluded.</summary>
    public static GradeRules ConfirmedList { get; } =
        new(
            "confirmed-list",
            "Confirmed list",
            "For records that must stand alone: several organs, two times of the year, every look-alike excluded.",
            [
                new(Grade.Reasoned, Characters: 3, Organs: 2, OverNext: 3, NoConflict: true),
                new(Grade.Corroborated, OverAll: 20, Diagnostics: 0.5, NoFail: true),
                new(Grade.Confirmed, Phenophases: 2, Diagnostics: 1, LookAlikesExcluded: true, NoConcern: true),
            ]
        );

    /// <summary>For lists made in passing: one sure character is enough, if it leaves no other name.</summary>
    public static GradeRules QuickList { get; } =
        new(
            "quick-list",
            "Quick list",
            "For lists made in passing: one sure character is enough where it leaves no other name.",
            [
                new(Grade.Reasoned, Characters: 1, OverNext: 3, NoConflict: true),
                new(Grade.Corroborated, OverAll: 10, NoFail: true),
                new(Grade.Confirmed, OverAll: 20, LookAlikesExcluded: true, NoConcern: true),
            ]
        );

    /// <summary>The tables that ship.</summary>
    public static IReadOnlyList<GradeRules> Shipped { get; } = [ConfirmedList, QuickList];

    /// <summary>What is wrong with the table, and where; null where it can be used.</summary>
    public (string Field, string Message)? Problem()
    {
        if (
            Rules is not { Count: 3 }
            || Rules[0].Grade != Grade.Reasoned
            || Rules[1].Grade != Grade.Corroborated
            || Rules[2].Grade != Grade.Confirmed
        )
            return ("rules", "There is one rule each for reasoned, corroborated and confirmed, in this order.");
        for (var i = 0; i < Rules.Count; i++)
        {
            var rule = Rules[i];
            (string, string) At(string field, string message) => ($"rules[{i}].{field}", message);
            if (rule.Characters is < 0 or > MostCharacters)
                return At("characters", $"This can never be met: ask for 0 to {MostCharacters} characters.");
            if (rule.Organs is < 0 or > MostOrgans)
                return At("organs", $"This can never be met: a plant has up to {MostOrgans} organs.");
            if (rule.Phenophases is < 0 or > MostPhenophases)
                return At("phenophases", $"This can never be met: a plant’s year has {MostPhenophases} times, from winter twig to fruit.");
            if (!(rule.OverNext >= 1) || !double.IsFinite(rule.OverNext))
                return At("overNext", "A name is 1 or more times as likely as the next.");
            if (!(rule.OverAll >= 0) || !double.IsFinite(rule.OverAll))
                return At("overAll", "This can never be met: give 0, or how many times as likely as all others.");
            if (!(rule.Diagnostics is >= 0 and <= 1))
                return At("diagnostics", "This can never be met: a share is 0 to 1.");
            if (rule.Organs > rule.Characters && i == 0)
                return At("organs", "This can never be met: there are more organs than characters.");
        }
        return null;
    }

    /// <summary>Names of a plant's times of the year.</summary>
    internal static IReadOnlyList<string> PhenophaseNames { get; } = ["winter twig", "spring growth", "leaf", "flower", "fruit"];
}
