namespace Garten.Core.Characters;

/// <summary>How often a statement holds, in the words of keys and floras and in numbers.</summary>
public static class Modality
{
    /// <summary>A state given without a word: always.</summary>
    public const double Always = 1;

    /// <summary>A lead that says something without a word may still be wrong about a plant in fifty.</summary>
    public const double AlwaysInKeys = 0.98;

    /// <summary>usually, mostly, generally, typically, nearly always.</summary>
    public const double Usually = 0.85;

    /// <summary>often, frequently, commonly.</summary>
    public const double Often = 0.6;

    /// <summary>sometimes, occasionally.</summary>
    public const double Sometimes = 0.3;

    /// <summary>rarely, seldom.</summary>
    public const double Rarely = 0.08;

    private static readonly Dictionary<string, double> Words = new(StringComparer.OrdinalIgnoreCase)
    {
        ["always"] = Always,
        ["usually"] = Usually,
        ["mostly"] = Usually,
        ["generally"] = Usually,
        ["typically"] = Usually,
        ["normally"] = Usually,
        ["often"] = Often,
        ["frequently"] = Often,
        ["commonly"] = Often,
        ["sometimes"] = Sometimes,
        ["occasionally"] = Sometimes,
        ["rarely"] = Rarely,
        ["seldom"] = Rarely,
    };

    /// <summary>The share that a word means; null where it is no word of frequency.</summary>
    public static double? Of(string word) => Words.TryGetValue(word, out var share) ? share : null;

    /// <summary>The word that is nearest to a share.</summary>
    public static string InWords(double share) =>
        share switch
        {
            >= 0.93 => "always",
            >= 0.7 => "usually",
            >= 0.45 => "often",
            >= 0.15 => "sometimes",
            _ => "rarely",
        };
}
