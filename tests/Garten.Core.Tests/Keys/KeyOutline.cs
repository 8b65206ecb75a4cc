using System.Text;
using Garten.Core.Keys;

namespace Garten.Core.Tests.Keys;

/// <summary>What a key says, a line per lead in the order of labels: two keys that say the same have the same outline.</summary>
internal static class KeyOutline
{
    public static string Of(Key key)
    {
        var text = new StringBuilder();
        var byLabel = key
            .Couplets.Select((c, i) => (c, i))
            .OrderBy(p => p.c.Label.Length)
            .ThenBy(p => p.c.Label, StringComparer.Ordinal)
            .ThenBy(p => p.i)
            .Select(p => p.c);
        foreach (var couplet in byLabel)
        {
            foreach (var lead in couplet.Leads)
            {
                text.Append(couplet.Label)
                    .Append(": ")
                    .AppendJoin(" ¦ ", lead.Statements)
                    .Append(" => ")
                    .Append(Destination(lead.Destination))
                    .Append('\n');
            }
        }
        return text.ToString();
    }

    private static string Destination(LeadDestination? to)
    {
        if (to is null)
            return "nowhere";
        var page = to.Page.Length > 0 ? $" p. {to.Page}" : "";
        return to.Kind switch
        {
            DestinationKind.Couplet => to.Target + page,
            DestinationKind.Key => $"[{to.Target}]{page}",
            _ =>
                $"{to.Taxon!.Name}{(to.Taxon.Authorship.Length > 0 ? $" | {to.Taxon.Authorship}" : "")}{(to.Taxon.CommonName.Length > 0 ? $" \"{to.Taxon.CommonName}\"" : "")}{(to.Taxon.Doubt is { } doubt ? $" ({doubt})" : "")}{string.Concat((to.Others ?? []).Select(o => $" or {o.Name}"))}{string.Concat((to.Synonyms ?? []).Select(s => $" [= {s}]"))}{(to.Note is { } note ? $" ({note})" : "")}{page}",
        };
    }
}
