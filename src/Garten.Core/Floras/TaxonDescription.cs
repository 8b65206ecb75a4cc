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
public sealed record CharacterDescription(string Character, IReadOnlyList<StateShare> States, QuantityRange? Range = null, QuantityRange? Shade = null, bool Applies = true);

/// <summary>What a taxon is like. A character that isn't among them is unknown.</summary>
/// <param name="Taxon">Id of the taxon.</param>
/// <param name="Characters">By character.</param>
/// <param name="IsProvisional">Whether it was made from the statements of a key and nobody has looked it over.</param>
public sealed record TaxonDescription(string Taxon, IReadOnlyList<CharacterDescription> Characters, bool IsProvisional = false);

/// <summary>Characters, what taxa are like in them, and when what can be seen: all that a sheet is weighed with.</summary>
/// <param name="Characters">The characters, in the order in which they are shown.</param>
/// <param name="Descriptions">The descriptions; those of a genus or a cultivated form are completed by <see cref="Complete"/>.</param>
/// <param name="Seasons">When the phenophases last.</param>
public sealed record CharacterTable(IReadOnlyList<Character> Characters, IReadOnlyList<TaxonDescription> Descriptions, IReadOnlyList<PhaseWindow> Seasons)
{
    /// <summary>A table with nothing in it.</summary>
    public static CharacterTable Empty { get; } = new([], [], []);

    private readonly Dictionary<string, Character> _byId = Characters.ToDictionary(c => c.Id, StringComparer.Ordinal);

    /// <summary>The character of this id; null where there is none.</summary>
    public Character? Find(string id) => _byId.GetValueOrDefault(id);

    /// <summary>
    /// The descriptions of the taxa at the end of the tree: each with what its genus has and it doesn't say otherwise; a cultivated form
    /// with all of its species but what it overrides.
    /// </summary>
    public static IReadOnlyList<TaxonDescription> Complete(IReadOnlyList<TaxonDescription> written, IReadOnlyList<Taxon> taxa)
    {
        ArgumentNullException.ThrowIfNull(taxa);
        var byTaxon = written.ToDictionary(d => d.Taxon, StringComparer.Ordinal);
        var byId = taxa.ToDictionary(t => t.Id, StringComparer.Ordinal);
        var done = new List<TaxonDescription>();
        foreach (var taxon in taxa.Where(t => t.Rank is not ("genus" or "family")))
        {
            var characters = new Dictionary<string, CharacterDescription>(StringComparer.Ordinal);
            var line = new Stack<string>();
            for (var at = taxon; at is not null && line.Count < 10; at = byId.GetValueOrDefault(at.Parent)) line.Push(at.Id);
            foreach (var id in line)
            {
                foreach (var described in byTaxon.GetValueOrDefault(id)?.Characters ?? []) characters[described.Character] = described;
            }
            if (characters.Count > 0) done.Add(new TaxonDescription(taxon.Id, [.. characters.Values.OrderBy(c => c.Character, StringComparer.Ordinal)]));
        }
        return done;
    }
}

/// <summary>A cell of a description as it is typed: <c>opposite | rarely whorled</c>, <c>5–8 cm @shade 9–14 cm</c>, <c>n/a</c>, <c>?</c>.</summary>
public static class DescriptionCell
{
    /// <summary>Reads a cell.</summary>
    /// <param name="text">What is typed.</param>
    /// <param name="character">The character it describes.</param>
    /// <param name="problem">What is wrong; null where it is sound.</param>
    /// <returns>The description; null for "?" (unknown) and where it can't be read.</returns>
    public static CharacterDescription? Read(string text, Character character, out string? problem)
    {
        ArgumentNullException.ThrowIfNull(text);
        ArgumentNullException.ThrowIfNull(character);
        problem = null;
        text = text.Trim();
        if (text is "" or "?") return null;
        if (text is "n/a") return new CharacterDescription(character.Id, [], null, null, false);
        return character.IsQuantity ? ReadRange(text, character, out problem) : ReadStates(text, character, out problem);
    }

    private static CharacterDescription? ReadRange(string text, Character character, out string? problem)
    {
        var parts = text.Split("@shade", StringSplitOptions.TrimEntries);
        var ranges = new List<QuantityRange>();
        problem = null;
        foreach (var part in parts.Take(2))
        {
            var reading = RangeNotation.Read(part, character.Quantity);
            if (reading.Ranges.Count != 1) problem ??= reading.Problem is { } wrong ? $"{wrong.Message} (“{part}”, character {wrong.At + 1})" : $"“{part}” is two measures; one is wanted.";
            else ranges.Add(reading.Ranges[0]);
        }
        if (parts.Length > 2) problem ??= "There are two ranges for shade leaves.";
        return problem is null ? new CharacterDescription(character.Id, [], ranges[0], ranges.Count > 1 ? ranges[1] : null) : null;
    }

    // "a | often b": the words' shares belong to the states that have one; the others share what is left.
    private static CharacterDescription? ReadStates(string text, Character character, out string? problem)
    {
        problem = null;
        var found = new List<(string State, double? Share)>();
        foreach (var part in text.Split('|', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var space = part.IndexOf(' ', StringComparison.Ordinal);
            var share = space > 0 ? Modality.Of(part[..space]) : null;
            var name = share is null ? part : part[(space + 1)..].Trim();
            var state = character.States.FirstOrDefault(s => s.Id == name || string.Equals(s.Name, name, StringComparison.OrdinalIgnoreCase) || s.Terms.Contains(name, StringComparer.OrdinalIgnoreCase));
            if (state is null)
            {
                problem = $"“{name}” is no state of {character.Name}: it has {string.Join(", ", character.States.Select(s => s.Name))}.";
                return null;
            }
            if (found.Exists(f => f.State == state.Id))
            {
                problem = $"“{state.Name}” is given twice.";
                return null;
            }
            found.Add((state.Id, share));
        }
        // Shares are of plants: "often" beside an unmarked state leaves that one the rest; words alone are brought to 1.
        var marked = found.Sum(f => f.Share ?? 0);
        var plain = found.Count(f => f.Share is null);
        var rest = plain == 0 ? 0 : Math.Max(1 - marked, Modality.Often) / plain;
        var total = marked + rest * plain;
        return new CharacterDescription(character.Id, [.. found.Select(f => new StateShare(f.State, (f.Share ?? rest) / total))]);
    }
}
