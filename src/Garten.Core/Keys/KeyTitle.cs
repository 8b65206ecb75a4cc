namespace Garten.Core.Keys;

/// <summary>How keys name one another.</summary>
public static class KeyTitle
{
    private static readonly string[] Openings =
    [
        "go to the ",
        "go to ",
        "goes to ",
        "see the ",
        "see ",
        "to the ",
        "the ",
        "key to the species of ",
        "key to species of ",
        "key to the genera of ",
        "key to the genus ",
        "key to genus ",
        "key to the ",
        "key to ",
        "key for the ",
        "key for ",
        "subkey to ",
        "sub-key to ",
        "key of the ",
        "key of ",
        "species of ",
        "genus ",
    ];

    /// <summary>
    /// Whether <paramref name="reference"/> ("Key B", "go to Key to the Vellornas", "Vellorna") means the key called
    /// <paramref name="title"/>:
    /// the same words but for case, punctuation and "key to the species of", or the first part of a title such as "Key B. Twigs in winter".
    /// </summary>
    public static bool IsNamedBy(string title, string reference)
    {
        var whole = Plain(title);
        var named = Plain(reference);
        if (whole.Length == 0 || named.Length == 0)
            return false;
        if (whole == named)
            return true;
        var subject = Subject(whole);
        var wanted = Subject(named);
        if (subject.Length > 1 && subject == wanted)
            return true;
        // "Key B" names "Key B: twigs in winter", and "B" does too; "Key to B" doesn't name "Key to Birches".
        var head = Head(title);
        if (head.Length > 0 && (head == named || head == "key " + named || head == "group " + named))
            return true;
        // "Key B" and "Group B" name "B. Twigs in winter" as well.
        return head.Length is > 0 and <= 3 && (named == "key " + head || named == "group " + head || named == "section " + head);
    }

    /// <summary>The words of a title in small letters with single spaces and without punctuation: two titles that agree in it are the
    /// same.</summary>
    public static string Plain(string title) =>
        string.Join(' ', title.ToLowerInvariant().Split([.. " \t#*_.,:;()[]“”\"'’‘–—-/"], StringSplitOptions.RemoveEmptyEntries));

    private static string Head(string title)
    {
        var end = title.AsSpan().IndexOfAny(".:–—(,");
        var words = Plain(end > 0 ? title[..end] : title).Split(' ');
        // "Key B Twigs in winter" has no mark between the two.
        if (
            words.Length >= 2
            && words[0] is "key" or "group" or "section" or "subkey" or "part"
            && words.Length >= 2
            && (words[1].Length == 1 || words[1].All(char.IsAsciiDigit) || IsRoman(words[1]))
        )
        {
            return words[0] + " " + words[1];
        }
        return end > 0 ? string.Join(' ', words) : "";
    }

    private static bool IsRoman(string word) => word.Length <= 4 && word.All(c => c is 'i' or 'v' or 'x');

    private static string Subject(string plain)
    {
        var subject = plain;
        // "II. Key to the species of Vellorna", "2. Key to …"
        var first = subject.IndexOf(' ', StringComparison.Ordinal);
        if (
            first is > 0 and <= 4
            && subject.AsSpan(first + 1).StartsWith("key ")
            && (IsRoman(subject[..first]) || first == 1 || subject.AsSpan(0, first).ContainsAnyInRange('0', '9'))
        )
            subject = subject[(first + 1)..];
        for (var changed = true; changed; )
        {
            changed = false;
            foreach (var opening in Openings)
            {
                if (!subject.StartsWith(opening, StringComparison.Ordinal))
                    continue;
                subject = subject[opening.Length..];
                changed = true;
            }
        }
        return subject;
    }
}
