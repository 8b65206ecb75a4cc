using System.Collections.Concurrent;
using System.Net;
using System.Net.Sockets;
using System.Text;

namespace Garten.Testing;

/// <summary>How the way to the server lies.</summary>
public enum Lie
{
    /// <summary>It doesn't.</summary>
    None,

    /// <summary>Whatever is asked for, a page to log in at is answered, as if all were well.</summary>
    Portal,

    /// <summary>The same, with a status that forbids.</summary>
    Forbidding,

    /// <summary>An answer breaks off after its beginning.</summary>
    Reset,

    /// <summary>What was answered to the same address before is answered again.</summary>
    Yesterday,

    /// <summary>Each answer takes ten seconds.</summary>
    Slow,
}

/// <summary>Stands between a browser and the server as what lies between them in the world: something that answers in its place, or breaks
/// off, or is late.</summary>
public sealed class LyingRelay : IAsyncDisposable
{
    private const int Beginning = 120;
    private static readonly TimeSpan Late = TimeSpan.FromSeconds(10);
    private readonly int _target;
    private readonly CancellationTokenSource _end = new();
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private readonly ConcurrentDictionary<string, byte[]> _before = new(StringComparer.Ordinal);

    public LyingRelay(int target)
    {
        _target = target;
        _listener.Start();
        _ = AcceptAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>How it lies now.</summary>
    public Lie Lie
    {
        get => _lie;
        set => _lie = value;
    }

    private volatile Lie _lie;

    public async ValueTask DisposeAsync()
    {
        await _end.CancelAsync();
        _listener.Stop();
        _end.Dispose();
    }

    private async Task AcceptAsync()
    {
        try
        {
            while (true)
                _ = PassAsync(await _listener.AcceptTcpClientAsync(_end.Token));
        }
        catch (Exception ended) when (ended is OperationCanceledException or SocketException or ObjectDisposedException)
        {
            // The end of the test.
        }
    }

    // One request a connection: so that each is answered as the way lies at that moment.
    private async Task PassAsync(TcpClient client)
    {
        try
        {
            var browser = client.GetStream();
            var (head, rest) = await HeadAsync(browser);
            if (head.Length == 0)
                return;
            var lines = head.Split("\r\n").Where(l => !l.StartsWith("Connection:", StringComparison.OrdinalIgnoreCase)).ToList();
            lines.Insert(1, "Connection: close");
            var (address, lie) = (lines[0], Lie);
            if (lie is Lie.Portal or Lie.Forbidding)
            {
                await browser.WriteAsync(Page(lie == Lie.Portal ? "200 OK" : "403 Forbidden"), _end.Token);
                return;
            }
            if (lie == Lie.Yesterday)
            {
                await browser.WriteAsync(_before.GetValueOrDefault(address) ?? Page("504 Gateway Timeout"), _end.Token);
                return;
            }
            if (lie == Lie.Slow)
                await Task.Delay(Late, _end.Token);
            using var server = new TcpClient();
            await server.ConnectAsync(IPAddress.Loopback, _target, _end.Token);
            var there = server.GetStream();
            await there.WriteAsync(Encoding.Latin1.GetBytes(string.Join("\r\n", lines) + "\r\n\r\n"), _end.Token);
            await there.WriteAsync(rest, _end.Token);
            var sending = browser.CopyToAsync(there, _end.Token);
            using var answer = new MemoryStream();
            await there.CopyToAsync(answer, _end.Token);
            if (lie == Lie.Reset)
            {
                await browser.WriteAsync(answer.GetBuffer().AsMemory(0, (int)Math.Min(Beginning, answer.Length)), _end.Token);
                client.LingerState = new LingerOption(true, 0);
                return;
            }
            if (address.StartsWith("GET ", StringComparison.Ordinal))
                _before[address] = answer.ToArray();
            await browser.WriteAsync(answer.GetBuffer().AsMemory(0, (int)answer.Length), _end.Token);
        }
        catch (Exception closed)
            when (closed
                    is IOException
                        or SocketException
                        or ObjectDisposedException
                        or OperationCanceledException
                        or InvalidOperationException
            )
        {
            // Closed on purpose.
        }
        finally
        {
            client.Dispose();
        }
    }

    private async Task<(string Head, byte[] Body)> HeadAsync(NetworkStream browser)
    {
        using var read = new MemoryStream();
        var part = new byte[8192];
        while (true)
        {
            var count = await browser.ReadAsync(part, _end.Token);
            if (count == 0)
                return ("", []);
            read.Write(part, 0, count);
            var text = Encoding.Latin1.GetString(read.GetBuffer(), 0, (int)read.Length);
            var end = text.IndexOf("\r\n\r\n", StringComparison.Ordinal);
            if (end >= 0)
                return (text[..end], read.ToArray()[(end + 4)..]);
        }
    }

    private static byte[] Page(string status)
    {
        const string page = "<!doctype html><title>Welcome</title><h1>Log in to go on</h1>";
        return Encoding.Latin1.GetBytes(
            $"HTTP/1.1 {status}\r\nContent-Type: text/html\r\nContent-Length: {page.Length}\r\nConnection: close\r\n\r\n{page}"
        );
    }
}
