using System.Net;
using System.Net.Sockets;

namespace Garten.Testing;

/// <summary>A port of this machine that nothing listens at.</summary>
public static class FreePort
{
    /// <summary>Finds one; whoever wants it should take it soon.</summary>
    public static int Find()
    {
        using var listener = new TcpListener(IPAddress.Loopback, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }
}
