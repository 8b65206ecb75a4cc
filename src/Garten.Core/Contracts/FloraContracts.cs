using System.Text.Json.Serialization;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Packs;
using Garten.Core.Seasons;

namespace Garten.Core.Contracts;

/// <summary>A flora in the list of floras.</summary>
/// <param name="Id">Stable identity.</param>
/// <param name="Name">Its name.</param>
/// <param name="Version">The newest published version; 0 where it was never published.</param>
/// <param name="Taxa">How many taxa the newest version has, or the draft where there is none.</param>
/// <param name="Characters">How many characters.</param>
/// <param name="Draft">What waits to be published; null where nothing does.</param>
public sealed record FloraSummary(string Id, string Name, int Version, int Taxa, int Characters, FloraImport? Draft)
{
    /// <summary>Whether it is the one to begin with where none is named.</summary>
    public bool IsDefault { get; init; }

    /// <summary>Where the text that it was made of is from; null where nothing is said of it.</summary>
    public TextSource? Source { get; init; }

    /// <summary>The grid that its cells are of; null where it has none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]
    public FloraGrid? Grid { get; init; }

    /// <summary>Marks the flora to begin with: of those published the one with most taxa, else the largest draft.</summary>
    public static IReadOnlyList<FloraSummary> WithDefault(IReadOnlyList<FloraSummary> floras)
    {
        ArgumentNullException.ThrowIfNull(floras);
        var first = floras.OrderByDescending(f => f.Version > 0).ThenByDescending(f => f.Taxa).FirstOrDefault();
        return [.. floras.Select(f => f == first ? f with { IsDefault = true } : f)];
    }
}

/// <summary>What came of bringing a flora: a draft that stays apart until it is published.</summary>
/// <param name="Id">Identity of the flora, made of its name.</param>
/// <param name="Version">The version that it becomes when it is published.</param>
/// <param name="Taxa">How many taxa it has.</param>
/// <param name="Characters">How many characters.</param>
/// <param name="Problems">What is wrong with the tables, worst first. A draft has warnings alone.</param>
public sealed record FloraImport(string Id, int Version, int Taxa, int Characters, IReadOnlyList<FloraProblem> Problems);

/// <summary>How a column of a matrix is read.</summary>
/// <param name="Heading">Its heading as it stands in the file.</param>
/// <param name="ReadAs">Name of the character, or what it says of the taxon; empty where it is left out.</param>
/// <param name="Kind">Kind of the character; null where it is none.</param>
/// <param name="Unit">Its unit; may be empty.</param>
/// <param name="States">How many states it has.</param>
/// <param name="Filled">How many cells say something.</param>
public sealed record FloraColumn(string Heading, string ReadAs, CharacterKind? Kind, string Unit, int States, int Filled);

/// <summary>A line of the list of taxa.</summary>
/// <param name="Taxon">The taxon.</param>
/// <param name="Matched">The name that fits what was asked for, where it isn't its own.</param>
/// <param name="Visible">What can be seen on it on the day asked for.</param>
/// <param name="Description">What it is like, for its small plate.</param>
public sealed record TaxonLine(
    Taxon Taxon,
    string Matched,
    IReadOnlyList<Phenophase> Visible,
    IReadOnlyList<CharacterDescription> Description
);

/// <summary>The taxa of a flora that were asked for.</summary>
/// <param name="Taxa">The taxa, best first; at most as many as a page holds.</param>
/// <param name="Found">How many there are in all.</param>
/// <param name="Families">All families of the flora, for the filter.</param>
/// <param name="GrowthForms">All growth forms.</param>
public sealed record TaxonList(IReadOnlyList<TaxonLine> Taxa, int Found, IReadOnlyList<string> Families, IReadOnlyList<string> GrowthForms)
{
    /// <summary>Lines on a page.</summary>
    public const int PageSize = 24;

    /// <summary>Asks a flora.</summary>
    /// <param name="book">The flora.</param>
    /// <param name="query">What is asked for.</param>
    /// <param name="from">The first line, from 0.</param>
    /// <param name="names">Only taxa of these names; null for all.</param>
    public static TaxonList Of(FloraBook book, TaxonQuery query, int from, IReadOnlySet<string>? names = null)
    {
        ArgumentNullException.ThrowIfNull(book);
        var found = TaxonSearch.Find(book.Flora.Taxa, query).Where(f => names is null || names.Contains(f.Taxon.Name)).ToList();
        return new TaxonList(
            [.. found.Skip(from).Take(PageSize).Select(f => new TaxonLine(f.Taxon, f.Matched, f.Visible, book.Description(f.Taxon.Id)))],
            found.Count,
            [
                .. book
                    .Flora.Taxa.Select(t => t.Family)
                    .Where(f => f.Length > 0)
                    .Distinct(StringComparer.Ordinal)
                    .Order(StringComparer.Ordinal),
            ],
            [
                .. book
                    .Flora.Taxa.Select(t => t.Facts?.GrowthForm ?? "")
                    .Where(f => f.Length > 0)
                    .Distinct(StringComparer.Ordinal)
                    .Order(StringComparer.Ordinal),
            ]
        );
    }
}

/// <summary>The taxa of a flora, narrowed; what is left out doesn't narrow.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Find">Any name, or the beginnings of genus and epithet.</param>
/// <param name="Family">A family.</param>
/// <param name="GrowthForm">A growth form.</param>
/// <param name="Origin">How it came here.</param>
/// <param name="Day">Only what is in flower or fruit on this day, <c>YYYY-MM-DD</c>.</param>
/// <param name="Cell">Only what is recorded in this grid cell.</param>
/// <param name="Names">Only taxa of these names; null: all.</param>
/// <param name="From">The first line, from 0.</param>
public sealed record TaxonListRequest(
    string FloraId,
    string Find = "",
    string Family = "",
    string GrowthForm = "",
    Origin? Origin = null,
    string Day = "",
    string Cell = "",
    IReadOnlyList<string>? Names = null,
    int From = 0
) : IFloraRequest
{
    /// <summary>A page of the list.</summary>
    /// <exception cref="RequestException">The day is none.</exception>
    public TaxonList List(ReadyFlora flora)
    {
        ArgumentNullException.ThrowIfNull(flora);
        return TaxonList.Of(
            flora.Book,
            new TaxonQuery(
                Find ?? "",
                Family ?? "",
                GrowthForm ?? "",
                Origin,
                string.IsNullOrEmpty(Day) ? null : RequestDay.Of(Day, "day"),
                Cell ?? ""
            ),
            Math.Max(0, From),
            Names?.ToHashSet(StringComparer.Ordinal)
        );
    }
}

/// <summary>The page of a taxon.</summary>
/// <param name="FloraId">The flora.</param>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Day">The day, for what can be seen, <c>YYYY-MM-DD</c>.</param>
public sealed record TaxonPageRequest(string FloraId, string Taxon, string Day) : IFloraRequest
{
    /// <summary>Makes it, with where the taxon stands in the keys of a shelf.</summary>
    /// <exception cref="RequestException">The flora hasn't the taxon, or the day is none.</exception>
    public TaxonPage Make(ReadyFlora flora, KeyShelf keys)
    {
        ArgumentNullException.ThrowIfNull(flora);
        return flora.Book.Page(Taxon ?? "", keys, RequestDay.Of(Day, "day"))
            ?? throw new RequestException("taxon", "This flora has no such taxon.") { Code = "taxon.unknown", IsUnknown = true };
    }
}
