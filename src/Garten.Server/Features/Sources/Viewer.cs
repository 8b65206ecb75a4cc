using Garten.Server.Commands;

namespace Garten.Server.Features.Sources;

/// <summary>Who asks: a device, by the identity that it has made for itself.</summary>
internal sealed class Viewer(IHttpContextAccessor http)
{
    /// <summary>Whether a text that only one device sees is hidden from who asks. The server itself sees all.</summary>
    public bool IsHidden(Guid? onlyDevice) =>
        onlyDevice is { } only && http.HttpContext is { } context && CommandsFeature.DeviceOf(context.Request) != only;
}
