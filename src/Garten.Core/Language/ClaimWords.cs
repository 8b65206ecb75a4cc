using Garten.Core.Characters;

namespace Garten.Core.Language;

/// <summary>Claims in words: "hairs of the petiole: hairless".</summary>
public static class ClaimWords
{
    // Of a long list the first few say what is meant.
    private const int MostStates = 6;

    /// <summary>A claim in words.</summary>
    /// <param name="claim">The claim.</param>
    /// <param name="character">Its character; null where there is none of that id.</param>
    public static string Of(StatementClaim claim, Character? character)
    {
        ArgumentNullException.ThrowIfNull(claim);
        string Name(string state) => character?.States.FirstOrDefault(s => s.Id == state)?.Name ?? state;
        var value =
            claim.Range is { } range ? Quantity(range)
            : claim.Denied is { Count: > 0 } denied ? "not " + string.Join(", not ", denied.Select(Name))
            : string.Join(" or ", claim.States.Take(MostStates).Select(Name)) + (claim.States.Count > MostStates ? " …" : "");
        var often = claim.Modality >= WithoutWord ? "" : $", {Modality.InWords(claim.Modality)}";
        var age = claim.Age switch
        {
            Evidence.PartAge.Young => ", when young",
            Evidence.PartAge.Grown => ", when grown",
            Evidence.PartAge.Old => ", when old",
            _ => "",
        };
        return $"{character?.Name ?? claim.Character}: {value}{often}{age}";
    }

    // What is said without a word of frequency holds of nearly all.
    private const double WithoutWord = 0.93;

    // As typed; of "4–9 × 2–5 cm" the one that is meant.
    private static string Quantity(Quantities.QuantityRange range)
    {
        if (range.Text.Trim() is { Length: > 0 } typed && !typed.Contains('×', StringComparison.Ordinal))
            return typed;
        const double large = 100;
        var (factor, unit) =
            range.Kind != Quantities.QuantityKind.Length ? (1, "")
            : range.High >= large ? (10, " cm")
            : (1, " mm");
        return string.Create(
            System.Globalization.CultureInfo.InvariantCulture,
            $"{range.Low / factor:0.##}–{range.High / factor:0.##}{unit}"
        );
    }

    /// <summary>Several claims in words.</summary>
    public static string Of(IEnumerable<StatementClaim> claims, Func<string, Character?> find)
    {
        ArgumentNullException.ThrowIfNull(claims);
        ArgumentNullException.ThrowIfNull(find);
        return string.Join("; ", claims.Select(c => Of(c, find(c.Character))));
    }
}
