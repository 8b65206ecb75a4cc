using System.Globalization;
using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Garten.Server.Hosting.Beyond;

/// <summary>
/// Where the server answers beyond its own machine: over TLS alone, with a certificate that was brought or one of an authority of its own.
/// Without <c>GARTEN_LISTEN</c> it answers nowhere else.
/// </summary>
internal sealed class BeyondLoopback
{
    /// <summary>Reads the settings: <c>GARTEN_LISTEN</c> (address:port), <c>GARTEN_CERTIFICATE</c> and <c>GARTEN_KEY</c> (PEM files), or
    /// <c>GARTEN_AUTHORITY</c> (the folder of an authority of its own).</summary>
    /// <exception cref="UnusableSettingException">They can't be used; the message says why.</exception>
    public BeyondLoopback(IConfiguration settings)
    {
        if (settings["GARTEN_LISTEN"] is not { Length: > 0 } listen)
            return;
        if (!IPEndPoint.TryParse(listen, out var end) || end.Port == 0)
            throw new UnusableSettingException($"“{listen}” isn't an address of this machine with a port, such as 192.168.1.20:5443.");
        Url = $"https://{listen}";
        var hosts = HostsOf(end.Address);
        if (settings["GARTEN_CERTIFICATE"] is { Length: > 0 } certificate)
        {
            try
            {
                Certificate = X509Certificate2.CreateFromPemFile(certificate, settings["GARTEN_KEY"]);
            }
            catch (Exception error)
                when (error is CryptographicException or IOException or UnauthorizedAccessException or ArgumentException)
            {
                throw new UnusableSettingException(
                    $"The certificate {certificate} with its key can't be used: {error.Message} Both are PEM files.",
                    error
                );
            }
        }
        else
        {
            var folder = settings["GARTEN_AUTHORITY"]
                ?? throw new UnusableSettingException(
                    "A certificate is needed: set GARTEN_CERTIFICATE and GARTEN_KEY, or GARTEN_AUTHORITY."
                );
            hosts.RemoveAll(h => !LocalAuthority.VouchesFor(IPAddress.Parse(h)));
            if (hosts.Count == 0)
                throw new UnusableSettingException(
                    $"{end.Address} isn't an address of a private network, and the server's own authority vouches for no other: "
                        + "bring a certificate."
                );
            Authority = LocalAuthority.In(folder);
            Certificate = Authority.CertificateFor(hosts, DateTimeOffset.UtcNow);
        }
        // The names of a certificate that was brought go first: at a bare address a device wouldn't take it.
        Names =
        [
            .. NamesOf(Certificate).Concat(hosts.Select(h => h.Contains(':') ? $"[{h}]" : h)).Distinct(StringComparer.OrdinalIgnoreCase),
        ];
        Addresses =
        [
            .. Names.Where(n => !n.StartsWith('*')).Select(n => string.Create(CultureInfo.InvariantCulture, $"https://{n}:{end.Port}")),
        ];
    }

    private static IEnumerable<string> NamesOf(X509Certificate2 certificate) =>
        certificate.Extensions.OfType<X509SubjectAlternativeNameExtension>().SelectMany(e => e.EnumerateDnsNames());

    /// <summary>The names and addresses by which devices ask for it; a request by another one isn't answered.</summary>
    public IReadOnlyList<string> Names { get; } = [];

    /// <summary>What it listens at beyond loopback; null: nowhere.</summary>
    public string? Url { get; }

    /// <summary>What it shows there.</summary>
    public X509Certificate2? Certificate { get; }

    /// <summary>Where devices reach this server, the best first; none where it answers on its own machine alone.</summary>
    public IReadOnlyList<string> Addresses { get; } = [];

    /// <summary>The authority of its own; null where a certificate was brought.</summary>
    public LocalAuthority? Authority { get; }

    /// <summary>Whether somebody asks from beyond the server's own machine. A program that asks without a connection, as tests do, is
    /// here.</summary>
    public static bool IsBeyond(HttpContext context) =>
        context.Request.IsHttps || (context.Connection.RemoteIpAddress is { } from && !IPAddress.IsLoopback(from));

    // The addresses under which a device can know this machine.
    private static List<string> HostsOf(IPAddress address)
    {
        if (!address.Equals(IPAddress.Any) && !address.Equals(IPAddress.IPv6Any))
            return [address.ToString()];
        var all = NetworkInterface
            .GetAllNetworkInterfaces()
            .Where(n => n.OperationalStatus == OperationalStatus.Up)
            .SelectMany(n => n.GetIPProperties().UnicastAddresses)
            .Select(a => a.Address)
            .Where(a => a.AddressFamily == AddressFamily.InterNetwork)
            .OrderBy(IPAddress.IsLoopback)
            .Select(a => a.ToString())
            .Distinct(StringComparer.Ordinal)
            .ToList();
        return all.Count > 0 ? all : ["127.0.0.1"];
    }
}
