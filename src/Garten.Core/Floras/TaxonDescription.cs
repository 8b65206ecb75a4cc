using System.Text.Json.Serialization;
using Garten.Core.Botany;
using Garten.Core.Characters;
using Garten.Core.Quantities;
using Garten.Core.Seasons;

namespace Garten.Core.Floras;

/// <summary>How often a taxon has a state.</summary>
/// <param name="State">Id of the state.</param>
/// <param name="Share">Share of the plants, above 0 to 1; the shares of a description add up to at most 1.</param>
public sealed record StateShare(string State, double Share);

/// <summary>What a taxon is like in one character.</summary>
/// <param name="Character">Id of the character.</param>
/// <param name="States">The states it has; empty for a measured character.</param>
/// <param name="Range">Its range; null for one with states.</param>
/// <param name="Shade">Its range on shade leaves and saplings; null where only the sun leaf's is known.</param>
/// <param name="Applies">False where the taxon hasn't the part at all.</param>
/// <param name="Misread">States that this taxon hasn't but is often taken to have; null where there are none.</param>
/// <param name="Contexts">What it is like in other contexts than the usual one; null where nothing is said of them.</param>
/// <param name="Sets">States that stand on one plant together; their shares and those of <paramref name="States"/> add up to at most 1.
/// Null where none are known.</param>
public sealed record CharacterDescription(
    string Character,
    IReadOnlyList<StateShare> States,
    QuantityRange? Range = null,
    QuantityRange? Shade = null,
    bool Applies = true,
    IReadOnlyList<string>? Misread = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<ContextCell>? Contexts = null,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)] IReadOnlyList<StateSet>? Sets = null
)
{
    /// <summary>What it is like in one of some contexts: the first of them that it speaks of; null where it speaks of none.</summary>
    public ContextCell? In(IReadOnlyList<DescribedContext> contexts)
    {
        if (Contexts is null)
            return null;
        ArgumentNullException.ThrowIfNull(contexts);
        foreach (var context in contexts)
        {
            foreach (var cell in Contexts)
            {
                if (cell.When == context)
                    return cell;
            }
        }
        return null;
    }
}

/// <summary>What a taxon is like. A character that isn't among them is unknown.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Characters">By character.</param>
/// <param name="IsProvisional">Whether it was made from the statements of a key and nobody has looked it over.</param>
public sealed record TaxonDescription(string Taxon, IReadOnlyList<CharacterDescription> Characters, bool IsProvisional = false);

/// <summary>Characters, what taxa are like in them, and when what can be seen: all that a sheet is weighed with.</summary>
/// <param name="Characters">The characters, in the order in which they are shown.</param>
/// <param name="Descriptions">The descriptions; those of a genus or a cultivated form are completed by <see cref="Complete"/>.</param>
/// <param name="Seasons">When the phenophases last.</param>
public sealed record CharacterTable(
    IReadOnlyList<Character> Characters,
    IReadOnlyList<TaxonDescription> Descriptions,
    IReadOnlyList<PhaseWindow> Seasons
)
{
    /// <summary>A table with nothing in it.</summary>
    public static CharacterTable Empty { get; } = new([], [], []);

    /// <summary>Makes characters that aren't among these of parts and qualities; null where none are made. No part of the
    /// content.</summary>
    [JsonIgnore]
    public BotanyIndex? Botany { get; init; }

    private readonly Dictionary<string, Character> _byId = Characters.ToDictionary(c => c.Id, StringComparer.Ordinal);

    /// <summary>The characters that derive as a ratio of two measured ones.</summary>
    internal IReadOnlyList<Character> Ratios { get; } = [.. Characters.Where(c => c.Kind == CharacterKind.Ratio && c.RatioOf is [_, _])];

    /// <summary>The characters that derive from a series up the stem.</summary>
    internal IReadOnlyList<Character> Trends { get; } = [.. Characters.Where(c => c.TrendOf.Length > 0)];

    /// <summary>
    /// Several tables as one. A character of the same id but with other states, or of another kind, is another character: the later one is
    /// then named with the place of its table in front ("2/leaf-shape"). Of two descriptions of a taxon the first counts.
    /// </summary>
    public static CharacterTable Join(IReadOnlyList<CharacterTable> tables)
    {
        ArgumentNullException.ThrowIfNull(tables);
        if (tables.Count == 1)
            return tables[0];
        var characters = new Dictionary<string, Character>(StringComparer.Ordinal);
        var descriptions = new Dictionary<string, TaxonDescription>(StringComparer.Ordinal);
        for (var i = 0; i < tables.Count; i++)
        {
            var renamed = new Dictionary<string, string>(StringComparer.Ordinal);
            foreach (var character in tables[i].Characters)
            {
                var known = characters.GetValueOrDefault(character.Id);
                if (known is not null && IsSame(known, character))
                    continue;
                var id = known is null ? character.Id : $"{i + 1}/{character.Id}";
                if (known is not null)
                    renamed[character.Id] = id;
                characters.TryAdd(id, character with { Id = id });
            }
            foreach (var description in tables[i].Descriptions)
            {
                descriptions.TryAdd(
                    description.Taxon,
                    description with
                    {
                        Characters =
                        [
                            .. description.Characters.Select(c =>
                                c with
                                {
                                    Character = renamed.GetValueOrDefault(c.Character, c.Character),
                                }
                            ),
                        ],
                    }
                );
            }
        }
        return new CharacterTable(
            [.. characters.Values],
            [.. descriptions.Values],
            [.. tables.SelectMany(t => t.Seasons).DistinctBy(w => w.Phase)]
        );
    }

    private static IEnumerable<string> LineAbove(Taxon taxon, Dictionary<string, Taxon> byId)
    {
        var steps = 0;
        for (var at = byId.GetValueOrDefault(taxon.Parent); at is not null && steps++ < DeepestTree; at = byId.GetValueOrDefault(at.Parent))
            yield return at.Id;
    }

    // No tree of taxa is deeper; a circle ends there.
    private const int DeepestTree = 20;

    private static bool IsSame(Character a, Character b) =>
        a.Kind == b.Kind && a.States.Select(s => s.Id).SequenceEqual(b.States.Select(s => s.Id), StringComparer.Ordinal);

    /// <summary>The character of this id: one of these, or one made of a part and a quality; null where there is none.</summary>
    public Character? Find(string id) => _byId.GetValueOrDefault(id) ?? Botany?.Compose(id);

    // Ranks of which a name stands for all that stand below it.
    private static readonly HashSet<string> Above = new(StringComparer.OrdinalIgnoreCase)
    {
        "aggregate",
        "group",
        "series",
        "subsection",
        "section",
        "subgenus",
        "genus",
        "subtribe",
        "tribe",
        "subfamily",
        "family",
        "order",
        "class",
        "division",
        "phylum",
    };

    /// <summary>
    /// The descriptions of the taxa that a plant can be named as: each with what its genus has and it doesn't say otherwise; a cultivated
    /// form
    /// with all of its species but what it overrides. A genus, an aggregate or any other group is among them where it is described itself
    /// and
    /// nothing that is described stands below it.
    /// </summary>
    public static IReadOnlyList<TaxonDescription> Complete(IReadOnlyList<TaxonDescription> written, IReadOnlyList<Taxon> taxa)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        var byTaxon = written.ToDictionary(d => d.Taxon, StringComparer.Ordinal);
        var byId = taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
        var done = new List<TaxonDescription>();
        var aggregates = taxa.SelectMany(t => (t.Facts?.Members ?? []).Select(m => (Member: m, t.Id)))
            .ToLookup(m => m.Member, m => m.Id, StringComparer.Ordinal);
        var groups = new List<(Taxon Taxon, TaxonDescription Description)>();
        var holding = new HashSet<string>(StringComparer.Ordinal);
        foreach (var taxon in taxa)
        {
            var characters = new Dictionary<string, CharacterDescription>(StringComparer.Ordinal);
            var line = new Stack<string>();
            for (var at = taxon; at is not null && line.Count < 10; at = byId.GetValueOrDefault(at.Parent))
                line.Push(at.Id);
            foreach (var id in line)
            {
                foreach (var described in byTaxon.GetValueOrDefault(id)?.Characters ?? [])
                    characters[described.Character] = described;
            }
            if (characters.Count == 0)
                continue;
            var description = new TaxonDescription(taxon.Id, [.. characters.Values.OrderBy(c => c.Character, StringComparer.Ordinal)]);
            if (Above.Contains(taxon.Rank))
            {
                if (byTaxon.GetValueOrDefault(taxon.Id) is { Characters.Count: > 0 })
                    groups.Add((taxon, description));
                continue;
            }
            done.Add(description);
            holding.UnionWith(LineAbove(taxon, byId));
            holding.UnionWith(aggregates[taxon.Id]);
        }
        // From the lowest group up: of a described family above a described genus only the genus is one to name.
        foreach (var (taxon, description) in groups.OrderByDescending(g => LineAbove(g.Taxon, byId).Count()))
        {
            if (holding.Contains(taxon.Id))
                continue;
            done.Add(description);
            holding.UnionWith(LineAbove(taxon, byId));
        }
        return done;
    }
}
