using System.Globalization;
using System.Text;

namespace Garten.Core.Keys;

/// <summary>Writes a key out as text in either layout, such that <see cref="KeyTextReader"/> reads the same key again.</summary>
public static class KeyTextWriter
{
    private const string Leader = " ........ ";
    private const int SpacesPerLevel = 2;

    // Beyond this depth the page is too narrow; the numbers tell what belongs together.
    private const int DeepestIndent = 12;

    /// <summary>The key as text, lines ended by a line feed.</summary>
    /// <param name="key">A sound key: labels are unique and every lead has statements and a destination.</param>
    /// <param name="layout">
    /// The layout to write. In the indented one a couplet that several leads go to stands below the first of them;
    /// the others name it by its number. Couplets that no lead goes to are left out there.
    /// </param>
    /// <exception cref="ArgumentException">A lead has no destination or no statement.</exception>
    public static string Write(Key key, KeyLayout layout)
    {
        ArgumentNullException.ThrowIfNull(key);
        if (key.Couplets.SelectMany(c => c.Leads).Any(l => l.Destination is null || l.Statements.Count == 0))
        {
            throw new ArgumentException("Every lead needs a statement and a destination to be written out.", nameof(key));
        }
        var text = new StringBuilder();
        if (key.Title.Length > 0)
            text.Append(key.Title).Append('\n');
        foreach (var note in key.Notes)
            text.Append(note).Append('\n');
        if (text.Length > 0)
            text.Append('\n');
        if (layout == KeyLayout.Bracketed)
            WriteBracketed(key, text);
        else
            WriteIndented(key, text);
        return text.ToString();
    }

    private static void WriteBracketed(Key key, StringBuilder text)
    {
        foreach (var couplet in key.Couplets)
        {
            for (var i = 0; i < couplet.Leads.Count; i++)
            {
                AppendLead(text, couplet, i).Append(Leader).Append(Destination(couplet.Leads[i].Destination!)).Append('\n');
            }
            text.Append('\n');
        }
    }

    private static void WriteIndented(Key key, StringBuilder text)
    {
        var byLabel = key.Couplets.ToDictionary(c => c.Label, StringComparer.Ordinal);
        var written = new HashSet<string>(StringComparer.Ordinal);
        // What stands below a lead says where it goes. Where a reader could take the end of a lead for a number, all leads get theirs.
        var numbered = key
            .Couplets.SelectMany(c => c.Leads)
            .Any(l =>
                l.Destination!.Kind == DestinationKind.Couplet && (l.Destination.Page.Length > 0 || char.IsAsciiDigit(l.Statements[^1][^1]))
            );
        if (key.Couplets.Count == 0)
            return;
        var open = new Stack<(Couplet Couplet, int Lead)>();
        open.Push((key.Couplets[0], 0));
        written.Add(key.Couplets[0].Label);
        while (open.TryPop(out var at))
        {
            var (couplet, i) = at;
            if (i >= couplet.Leads.Count)
                continue;
            text.Append(' ', Math.Min(open.Count, DeepestIndent) * SpacesPerLevel);
            open.Push((couplet, i + 1));
            var lead = couplet.Leads[i];
            AppendLead(text, couplet, i);
            var to = lead.Destination!;
            if (to.Kind == DestinationKind.Couplet && byLabel.TryGetValue(to.Target, out var below) && written.Add(to.Target))
            {
                if (numbered)
                    text.Append(Leader).Append(Destination(to));
                text.Append('\n');
                open.Push((below, 0));
            }
            else
                text.Append(Leader).Append(Destination(to)).Append('\n');
        }
    }

    private static StringBuilder AppendLead(StringBuilder text, Couplet couplet, int lead)
    {
        text.Append(couplet.Label);
        // A letter-labelled couplet repeats its letter ("A", "AA"); "Aa" would be a word.
        if (char.IsAsciiDigit(couplet.Label[0]))
            text.Append(Letter(lead));
        else
            text.Append(couplet.Label[0], lead);
        return text.Append(". ").AppendJoin("; ", couplet.Leads[lead].Statements);
    }

    // Marks a to h are read as letters; a couplet with more leads than that is marked by stars.
    private static string Letter(int lead) =>
        lead < 8 ? ((char)('a' + lead)).ToString(CultureInfo.InvariantCulture) : new string('*', lead - 7);

    private static string Destination(LeadDestination to)
    {
        var name = to.Taxon is null
            ? to.Target
            : string.Join(" or ", to.Taxa) + (to.Taxon.CommonName.Length > 0 ? $" ({to.Taxon.CommonName})" : "");
        foreach (var synonym in to.Synonyms ?? [])
            name += $" [= {synonym}]";
        if (to.Note is { Length: > 0 } note)
            name += $" (note: {note})";
        return to.Page.Length == 0 ? name
            : char.IsAsciiDigit(to.Page[0]) ? $"{name} (p. {to.Page})"
            : $"{name} ({to.Page})";
    }
}
