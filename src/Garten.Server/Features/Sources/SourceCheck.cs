using Garten.Core.Keys;
using Garten.Server.Commands;

namespace Garten.Server.Features.Sources;

/// <summary>Checks what is said of a source.</summary>
internal static class SourceCheck
{
    /// <summary>Refuses what is too long, and a text for one device alone where none is named.</summary>
    /// <exception cref="CommandRefusedException">Something in it can't be kept.</exception>
    public static void Sound(TextSource? source, Guid? device)
    {
        if (source is null)
            return;
        Check.Text(source.Book ?? "", "source.book", "The book", Limits.LongestName, required: false);
        Check.Text(source.Page ?? "", "source.page", "The page", Limits.LongestName, required: false);
        if (source.OnlyHere && device is null)
            throw Refusal.Of(
                422,
                "source.device",
                "No device is named that alone may see this text.",
                $"Send the header {CommandsFeature.DeviceHeader}, or let everybody see it.",
                "source.onlyHere"
            );
    }
}
