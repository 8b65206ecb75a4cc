using Garten.Core.Keys;
using Garten.Server.Commands;

namespace Garten.Server.Features.Sources;

/// <summary>Checks what is said of a source.</summary>
internal static class SourceCheck
{
    /// <summary>Refuses what is too long.</summary>
    /// <exception cref="CommandRefusedException">Something in it can't be kept.</exception>
    public static void Sound(TextSource? source)
    {
        if (source is null)
            return;
        Check.Text(source.Book ?? "", "source.book", "The book", Limits.LongestName, required: false);
        Check.Text(source.Page ?? "", "source.page", "The page", Limits.LongestName, required: false);
    }
}
