using Fendrik.Tests.Shared;

namespace Fendrik.Server.Tests;

public sealed class ServerFixture : IAsyncLifetime
{
    public ServerHost Host { get; private set; } = null!;

    public async ValueTask InitializeAsync() => Host = await ServerHost.StartAsync();

    public ValueTask DisposeAsync() => Host.DisposeAsync();
}

[CollectionDefinition(nameof(ServerFixture))]
public sealed class ServerCollection : ICollectionFixture<ServerFixture>;
