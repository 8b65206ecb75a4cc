using System.Globalization;
using Garten.Core.Characters;
using Garten.Core.Floras;
using Garten.Core.Quantities;

namespace Garten.Formats.Tables;

/// <summary>Cells as plain trait tables have them, beside those of <see cref="DescriptionCell"/>: bare means, counts with a fraction,
/// zeros.</summary>
internal static class NumberCell
{
    // The mean of a taxon in a table says nothing of its spread: plants of one taxon commonly differ from it by a quarter.
    private const double SpreadOfMean = 0.25;

    public static CharacterDescription? Read(string text, Character character, out string? problem)
    {
        problem = null;
        if (!character.IsQuantity || !FloraTables.TryNumber(text, out var value))
            return DescriptionCell.Read(text, character, out problem);
        if (value < 0)
        {
            problem = $"“{text}” is below zero.";
            return null;
        }
        var kind = character.Quantity;
        if (kind == QuantityKind.Count)
        {
            // A mean of counts lies between two of them.
            if (Math.Abs(value - Math.Round(value)) > 1e-9)
                return Of(new QuantityRange(kind, RangeForm.Between, Math.Floor(value), Math.Ceiling(value), Text: text));
            return DescriptionCell.Read(text, character, out problem);
        }
        // A length of nothing is the length of a part that isn't there.
        if (value == 0)
            return kind == QuantityKind.Length ? new CharacterDescription(character.Id, [], Applies: false) : null;
        if (kind == QuantityKind.Angle)
            return DescriptionCell.Read(text, character, out problem);
        var unit = kind == QuantityKind.Length ? MeasureUnit.Named(character.Unit) : null;
        if (kind == QuantityKind.Length && unit is null)
        {
            problem =
                $"“{text}” has no unit, and the character {character.Name} has none either. Give it one in the table of characters, or type {text} mm.";
            return null;
        }
        var scaled = value * (unit?.Factor ?? 1);
        var shown = string.Create(
            CultureInfo.InvariantCulture,
            $"mean {value:0.####}{(character.Unit.Length > 0 ? " " + character.Unit : "")}"
        );
        return Of(new QuantityRange(kind, RangeForm.Between, scaled * (1 - SpreadOfMean), scaled * (1 + SpreadOfMean), Text: shown));

        CharacterDescription Of(QuantityRange range) => new(character.Id, [], range);
    }
}
