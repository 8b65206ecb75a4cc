using System.Net;
using System.Net.Sockets;

namespace Garten.Testing;

/// <summary>Stands between a server and its database, so that a test can take the database away and bring it back.</summary>
public sealed class TcpRelay : IAsyncDisposable
{
    private readonly int _target;
    private readonly List<TcpClient> _open = [];
    private readonly CancellationTokenSource _end = new();
    private readonly TcpListener _listener = new(IPAddress.Loopback, 0);
    private volatile bool _away;

    public TcpRelay(int target)
    {
        _target = target;
        _listener.Start();
        _ = AcceptAsync();
    }

    public int Port => ((IPEndPoint)_listener.LocalEndpoint).Port;

    /// <summary>From now on every connection is closed at once, the open ones too.</summary>
    public void TakeAway()
    {
        _away = true;
        lock (_open)
        {
            foreach (var client in _open)
                client.Close();
            _open.Clear();
        }
    }

    public void BringBack() => _away = false;

    public async ValueTask DisposeAsync()
    {
        await _end.CancelAsync();
        _listener.Stop();
        TakeAway();
        _end.Dispose();
    }

    private async Task AcceptAsync()
    {
        try
        {
            while (true)
            {
                var client = await _listener.AcceptTcpClientAsync(_end.Token);
                _ = PassAsync(client);
            }
        }
        catch (OperationCanceledException)
        {
            // The end of the test.
        }
    }

    private async Task PassAsync(TcpClient client)
    {
        using var server = new TcpClient();
        try
        {
            if (_away)
                return;
            await server.ConnectAsync(IPAddress.Loopback, _target, _end.Token);
            lock (_open)
                _open.AddRange([client, server]);
            await Task.WhenAny(
                client.GetStream().CopyToAsync(server.GetStream(), _end.Token),
                server.GetStream().CopyToAsync(client.GetStream(), _end.Token)
            );
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
}
