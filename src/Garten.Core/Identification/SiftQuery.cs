using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Quantities;

namespace Garten.Core.Identification;

/// <summary>What a list is narrowed to. Everything may be left out; what is given must all hold.</summary>
/// <param name="Families">Only these families.</param>
/// <param name="GrowthForms">Only these growth forms.</param>
/// <param name="Genera">Only these genera, by name.</param>
/// <param name="RecordedHere">Only what is recorded in the place's grid cell.</param>
/// <param name="Taxa">Only these taxa, by id.</param>
/// <param name="GreenNow">Only what has green leaves on the day: evergreens and rosettes of the winter in January; null: all.</param>
public sealed record Narrowing(
    IReadOnlyList<string>? Families = null,
    IReadOnlyList<string>? GrowthForms = null,
    IReadOnlyList<string>? Genera = null,
    bool RecordedHere = false,
    IReadOnlyList<string>? Taxa = null,
    bool? GreenNow = null
);

/// <summary>What is asked of a list.</summary>
/// <param name="Observations">The looks at the plant; superseded ones are passed over.</param>
/// <param name="Plausible">Whether place, date, habitat and elevation weigh in; else all taxa are equal at first.</param>
/// <param name="Place">Where; null where unknown.</param>
/// <param name="Day">The day; null where it doesn't matter.</param>
/// <param name="Tools">What is at hand besides the eye; null for all but a microscope.</param>
/// <param name="Most">The most handling that is allowed.</param>
/// <param name="Missing">Organs that this plant hasn't now.</param>
/// <param name="Skip">Characters that can't be told on this plant.</param>
/// <param name="Narrowing">What the list is narrowed to; null for the whole of it.</param>
/// <param name="Tolerance">For the strict view: how many conflicts a taxon may have to be named, fewest first; null where all stand by
/// their probability.</param>
/// <param name="Why">Of which taxa, besides the likeliest, the reasons are wanted; null for those of the dozen likeliest.</param>
/// <param name="NotOnList">Prior of "not on this list", as learnt at the place (<see cref="Strangers"/>), 0 to 1; null for the usual
/// one.</param>
public sealed record SiftQuery(
    IReadOnlyList<Observation> Observations,
    bool Plausible = false,
    SiftPlace? Place = null,
    DateOnly? Day = null,
    IReadOnlyCollection<Tool>? Tools = null,
    Handling Most = Handling.Cut,
    IReadOnlyCollection<Organ>? Missing = null,
    IReadOnlyCollection<string>? Skip = null,
    Narrowing? Narrowing = null,
    int? Tolerance = null,
    IReadOnlyCollection<string>? Why = null,
    double? NotOnList = null
);

/// <summary>One thing seen, and how it stands to a taxon.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="Seen">What was seen.</param>
/// <param name="Described">What the taxon is like.</param>
/// <param name="Fit">How the two stand; null where the taxon isn't described in it, or the look doesn't count.</param>
/// <param name="LogOdds">ln of how many times as probable it is under this taxon as on any plant; below 0 it speaks against it.</param>
/// <param name="Note">Why it counts less, or is judged otherwise; empty for most.</param>
public sealed record SiftReason(string Character, string Seen, string Described, Fit? Fit, double LogOdds, string Note)
{
    // How many times as probable it has to be for each word.
    private static readonly double Strongly = Math.Log(10);
    private static readonly double Clearly = Math.Log(3);
    private static readonly double Slightly = Math.Log(1.5);

    /// <summary>How much it counts and which way, in words: "strongly for", "slightly against", "conflicts".</summary>
    public string InWords
    {
        get
        {
            if (Fit is global::Garten.Core.Quantities.Fit.Conflicts)
                return "conflicts";
            var way = LogOdds < 0 ? "against" : "for";
            var size = Math.Abs(LogOdds);
            return size >= Strongly ? $"strongly {way}"
                : size >= Clearly ? $"clearly {way}"
                : size >= Slightly ? $"slightly {way}"
                : "hardly counts";
        }
    }
}

/// <summary>A candidate with its probability.</summary>
/// <param name="Taxon">Id of the taxon; <see cref="Sifter.NotOnList"/> for a plant that isn't on the list.</param>
/// <param name="Probability">Its probability, 0 to 1.</param>
/// <param name="Conflicts">How many looks conflict with it.</param>
/// <param name="Described">In how many of the looked at characters it is described.</param>
/// <param name="Other">Its probability by the other prior: plausible where this is equal, equal where this is plausible.</param>
/// <param name="Reasons">What speaks for and against it, strongest first; of those only that they are wanted of
/// (<see cref="SiftQuery.Why"/>).</param>
/// <param name="Prior">Why it is less plausible here, in sentences; of the same.</param>
public sealed record Candidate(
    string Taxon,
    double Probability,
    int Conflicts,
    int Described,
    double Other,
    IReadOnlyList<SiftReason> Reasons,
    IReadOnlyList<string> Prior
);

/// <summary>How sure a standing is.</summary>
[JsonConverter(typeof(CamelCaseWords<RankingCall>))]
public enum RankingCall
{
    /// <summary>Nothing has been seen that counts.</summary>
    Nothing,

    /// <summary>One name holds nearly all.</summary>
    FarAhead,

    /// <summary>One name is several times as likely as the next.</summary>
    Ahead,

    /// <summary>One of a few.</summary>
    OneOf,

    /// <summary>Many are still as likely.</summary>
    Open,

    /// <summary>Most likely none of the list.</summary>
    NotOnList,

    /// <summary>What was seen fits none of the list.</summary>
    NoneFits,
}

/// <summary>A list sifted.</summary>
/// <param name="Standing">The candidates, likeliest first (seen strictly: fewest conflicts first); "not on this list" is among
/// them.</param>
/// <param name="Call">How sure it is.</param>
/// <param name="Leaders">How many the call speaks of: 3 for "one of three".</param>
/// <param name="InWords">The same in words.</param>
/// <param name="Alike">Sets of leading taxa whose descriptions are the same: no look tells them apart.</param>
/// <param name="Listed">How many taxa are on the list as narrowed.</param>
/// <param name="LeastProbable">What the taxa share that the standing doesn't name.</param>
/// <param name="Items">What the sheet came to.</param>
public sealed record SiftResult(
    IReadOnlyList<Candidate> Standing,
    RankingCall Call,
    int Leaders,
    string InWords,
    IReadOnlyList<IReadOnlyList<string>> Alike,
    int Listed,
    double LeastProbable,
    IReadOnlyList<EvidenceItem> Items
);
