using Garten.Core.Characters;
using Garten.Core.Floras;

namespace Garten.Benchmarks;

/// <summary>
/// Descriptions without holes to draw plants from. A plant shows every character, also those that its species isn't described in: a bench
/// that looks only where the species is described gives it away by that alone.
/// </summary>
internal sealed class WholePlants
{
    private readonly Dictionary<string, Dictionary<string, List<CharacterDescription>>> _byForm = new(StringComparer.Ordinal);
    private readonly Dictionary<string, string> _form = new(StringComparer.Ordinal);
    private readonly IReadOnlyList<Character> _characters;

    /// <summary>Gathers what taxa of each growth form are like.</summary>
    public WholePlants(IReadOnlyList<Character> characters, IReadOnlyList<TaxonDescription> complete)
    {
        _characters = characters;
        foreach (var taxon in complete)
        {
            var form = FormOf(taxon);
            _form[taxon.Taxon] = form;
            if (!_byForm.TryGetValue(form, out var cells))
                _byForm[form] = cells = new(StringComparer.Ordinal);
            foreach (var cell in taxon.Characters)
            {
                if (!cells.TryGetValue(cell.Character, out var list))
                    cells[cell.Character] = list = [];
                list.Add(cell);
            }
        }
    }

    /// <summary>A description with what it doesn't say taken, character by character, from some taxon of the same growth form.</summary>
    public List<CharacterDescription> Whole(TaxonDescription taxon, Random random)
    {
        var whole = taxon.Characters.ToList();
        var said = whole.Select(c => c.Character).ToHashSet(StringComparer.Ordinal);
        var kin = _byForm[_form[taxon.Taxon]];
        foreach (var character in _characters)
        {
            if (said.Contains(character.Id) || !kin.TryGetValue(character.Id, out var cells))
                continue;
            var cell = cells[random.Next(cells.Count)];
            // A part hangs on what carries it: where that is otherwise here, the part isn't there.
            var controller = character.Needs is { } needs ? whole.Find(c => c.Character == needs.Character) : null;
            if (controller is null || controller.States.Any(s => character.Needs!.States.Contains(s.State)))
                whole.Add(cell);
        }
        return whole;
    }

    private static string FormOf(TaxonDescription taxon) =>
        taxon.Characters.FirstOrDefault(c => c.Character == "growth-form")?.States is [var first, ..] ? first.State : "";
}
