using System.Globalization;
using System.Text;

namespace Garten.Core.Floras;

/// <summary>Names as they are compared when somebody types them.</summary>
public static class NameFold
{
    /// <summary>Lower case, without accents, one blank between words, none around. Where the host has no tables of letters (the browser)
    /// accents stay.</summary>
    public static string Plain(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var plain = new StringBuilder(text.Length);
        foreach (var c in text.ToLowerInvariant().Normalize(NormalizationForm.FormD))
        {
            if (char.IsWhiteSpace(c))
            {
                if (plain.Length > 0 && plain[^1] != ' ')
                    plain.Append(' ');
            }
            else if (CharUnicodeInfo.GetUnicodeCategory(c) != UnicodeCategory.NonSpacingMark)
            {
                plain.Append(c);
            }
        }
        return plain.ToString().TrimEnd();
    }
}
