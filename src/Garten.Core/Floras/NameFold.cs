using System.Collections.Frozen;
using System.Text;

namespace Garten.Core.Floras;

/// <summary>Names as they are compared when somebody types them, alike on every host: neither has the tables of all languages.</summary>
public static class NameFold
{
    // Letters of the languages in Latin script as somebody types them who hasn't their key.
    private static readonly FrozenDictionary<char, string> Plainly = new (string To, string From)[]
    {
        ("a", "àáâãäåāăą"),
        ("ae", "æ"),
        ("c", "çćĉċč"),
        ("d", "ďđð"),
        ("e", "èéêëēĕėęě"),
        ("g", "ĝğġģ"),
        ("h", "ĥħ"),
        ("i", "ìíîïĩīĭįı"),
        ("j", "ĵ"),
        ("k", "ķ"),
        ("l", "ĺļľŀł"),
        ("n", "ñńņňŋ"),
        ("o", "òóôõöøōŏő"),
        ("oe", "œ"),
        ("r", "ŕŗř"),
        ("s", "śŝşšș"),
        ("ss", "ß"),
        ("t", "ţťŧț"),
        ("th", "þ"),
        ("u", "ùúûüũūŭůűų"),
        ("w", "ŵ"),
        ("y", "ýÿŷ"),
        ("z", "źżž"),
        ("'", "’‘"),
    }
        .SelectMany(it => it.From.Select(from => KeyValuePair.Create(from, it.To)))
        .ToFrozenDictionary();

    /// <summary>Lower case, without accents, one blank between words, none around. Other scripts stay as they are.</summary>
    public static string Plain(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = new StringBuilder(text.Length);
        foreach (var c in text.ToLowerInvariant())
        {
            if (!char.IsWhiteSpace(c))
                plain.Append(Plainly.TryGetValue(c, out var to) ? to : c.ToString());
            else if (plain.Length > 0 && plain[^1] != ' ')
                plain.Append(' ');
        }
        return plain.ToString().TrimEnd();
    }
}
