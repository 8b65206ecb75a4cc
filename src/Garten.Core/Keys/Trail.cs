using System.Globalization;
using System.Text.Json.Serialization;
using Garten.Core.Evidence;
using Garten.Core.Floras;

namespace Garten.Core.Keys;

/// <summary>An answer given at a couplet.</summary>
/// <param name="KeyVersion">Hash of the version followed.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Lead">Index of the chosen lead from 0; null for "can't tell", which keeps every lead open.</param>
/// <param name="Sureness">How sure; a guess counts as fairly sure.</param>
/// <param name="Reading">Number of the reading of the version that it was weighed by; 0: not said.</param>
public sealed record TrailAnswer(string KeyVersion, string Couplet, int? Lead, Sureness Sureness = Sureness.Sure, int Reading = 0)
{
    /// <summary>Version and reading as a shelf is asked for them: <c>hash~2</c>, or the hash alone.</summary>
    [JsonIgnore]
    public string Cited => Reading > 0 ? string.Create(CultureInfo.InvariantCulture, $"{KeyVersion}~{Reading}") : KeyVersion;

    /// <summary>Reads a citation: the hash, and the number of the reading or 0.</summary>
    public static (string Hash, int Reading) ReadCitation(string cited)
    {
        ArgumentNullException.ThrowIfNull(cited);
        var at = cited.IndexOf('~', StringComparison.Ordinal);
        return at > 0 && int.TryParse(cited.AsSpan(at + 1), NumberStyles.None, CultureInfo.InvariantCulture, out var number)
            ? (cited[..at], number)
            : (cited, 0);
    }

    /// <summary>Probability that a sure answer is the lead that the plant lies under.</summary>
    public const double SureRight = 0.97;

    /// <summary>The same of a fairly sure one.</summary>
    public const double FairlyRight = 0.85;

    /// <summary>Probability of this answer at a couplet of so many leads, under one of them: 1 for "can't tell".</summary>
    public double Probability(int under, int leads)
    {
        if (Lead is not { } chosen)
            return 1;
        var right = Sureness == Sureness.Sure ? SureRight : FairlyRight;
        return chosen == under ? right : (1 - right) / Math.Max(1, leads - 1);
    }
}

/// <summary>An answered couplet on the way, with the words that were read there.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="KeyTitle">Title of the key.</param>
/// <param name="Couplet">Label of the couplet.</param>
/// <param name="Lead">The chosen lead from 0; null for "can't tell".</param>
/// <param name="Leads">The text of every lead, statements joined by semicolons.</param>
/// <param name="EntersKey">Whether the trail enters this key here, at the start or by a hand-over.</param>
/// <param name="Forks">How many forks (couplets answered "can't tell") lie on the way here; 0 on an undivided trail.</param>
/// <param name="Branch">The nearest fork and the lead of it that this couplet lies under ("4b"); empty where none.</param>
public sealed record TrailStep(
    string KeyVersion,
    string KeyTitle,
    string Couplet,
    int? Lead,
    IReadOnlyList<string> Leads,
    bool EntersKey,
    int Forks,
    string Branch
);

/// <summary>A couplet that waits for an answer.</summary>
/// <param name="KeyVersion">Hash of the version.</param>
/// <param name="KeyTitle">Title of the key.</param>
/// <param name="Couplet">The couplet.</param>
/// <param name="Taxa">Per lead, what stands if it is chosen.</param>
/// <param name="EntersKey">Whether it is the first couplet of a key that the trail enters here.</param>
/// <param name="Branch">The nearest fork and the lead of it that this couplet lies under ("4b"); empty where none.</param>
/// <param name="Place">Where it stands in the key, from 1.</param>
/// <param name="CoupletsInKey">How many couplets the key has.</param>
/// <param name="FewestToEnd">Answers still needed in this key on the shortest way to an end, this one counted; at least 1.</param>
/// <param name="MostToEnd">The same on the longest way.</param>
public sealed record OpenCouplet(
    string KeyVersion,
    string KeyTitle,
    Couplet Couplet,
    IReadOnlyList<IReadOnlyList<RemainingTaxon>> Taxa,
    bool EntersKey,
    string Branch,
    int Place,
    int CoupletsInKey,
    int FewestToEnd,
    int MostToEnd
);

/// <summary>A taxon that the answers leave standing.</summary>
/// <param name="Name">Its name without authorship; for a hand-over to a key that isn't there, how the lead names that key.</param>
/// <param name="Taxon">The name taken apart; null for a key that isn't there.</param>
/// <param name="Reached">Whether the trail has come to it; false while it lies behind couplets still open.</param>
/// <param name="TaxonId">The taxon of the flora that is meant; null where the flora hasn't it.</param>
public sealed record RemainingTaxon(string Name, TaxonName? Taxon, bool Reached, string? TaxonId = null);

/// <summary>Where a walk through the keys has come to.</summary>
/// <param name="Steps">The answered couplets that lie on the way, in the order in which they are met; below a fork branch by
/// branch.</param>
/// <param name="Open">The couplets that wait for an answer, in the same order; empty when every path has come to its end.</param>
/// <param name="Standing">The taxa still standing, in the order of the keys, each once.</param>
/// <param name="Dormant">Answers that no longer lie on the way, since an earlier one was changed. They count again when it is changed
/// back.</param>
public sealed record WalkState(
    IReadOnlyList<TrailStep> Steps,
    IReadOnlyList<OpenCouplet> Open,
    IReadOnlyList<RemainingTaxon> Standing,
    IReadOnlyList<TrailAnswer> Dormant
)
{
    /// <summary>Whether every path has come to its end.</summary>
    public bool IsFinished => Open.Count == 0;
}
