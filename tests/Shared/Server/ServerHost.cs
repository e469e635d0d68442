using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Dapper;
using Fendrik.Core.Accounts;
using Fendrik.Data.Model;
using Fendrik.Data.Setup;
using Fendrik.Server;
using Fendrik.Server.Networks;
using Microsoft.AspNetCore.Builder;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Fendrik.Tests.Shared;

/// <summary>Fendrik's server as it ships, over HTTP on loopback, with the real network stand-in behind it.</summary>
public sealed class ServerHost : IAsyncDisposable
{
    public const string Password = "a long password for tests";

    private readonly NetworkHost _network;

    private ServerHost(WebApplication application, NetworkHost network, string database) =>
        (Application, _network, Database) = (application, network, database);

    public WebApplication Application { get; private set; }
    public string Database { get; }
    public string Address => Application.Urls.First();
    public HttpClient Network => _network.Client();

    public static async Task<ServerHost> StartAsync(
        string? webRoot = null,
        Action<IServiceCollection>? otherwise = null,
        int limitsScale = 1_000
    )
    {
        var network = await NetworkHost.StartAsync();
        var database = await TestDatabase.CreateAsync(
            "server",
            async prepared =>
            {
                await using var source = NpgsqlDataSource.Create(prepared);
                await using var context = new FendrikContext(
                    FendrikDatabase.Configure(new DbContextOptionsBuilder<FendrikContext>(), prepared).Options
                );
                await FendrikDatabase.PrepareAsync(context, source);
            }
        );
        return new ServerHost(await BuildAsync(network, database, webRoot, otherwise, limitsScale), network, database);
    }

    /// <summary>Stops the server as an operator would and starts another on the same database.</summary>
    public async Task RestartAsync()
    {
        await Application.DisposeAsync();
        Application = await BuildAsync(_network, Database, null, null);
    }

    /// <summary>The network is gone from now on.</summary>
    public ValueTask StopNetworkAsync() => _network.DisposeAsync();

    private static async Task<WebApplication> BuildAsync(
        NetworkHost network,
        string database,
        string? webRoot,
        Action<IServiceCollection>? otherwise,
        int limitsScale = 1_000
    )
    {
        List<string> settings =
        [
            "--urls=http://127.0.0.1:0",
            "--environment=Production",
            $"--Fendrik:Database={database}",
            $"--Fendrik:Network={network.Address}",
            $"--Fendrik:NetworkKey={NetworkHost.Key}",
            "--Fendrik:NetworkTimeoutSeconds=10",
            // Tests ask more in a minute than people do in a day.
            $"--Fendrik:LimitsScale={limitsScale}",
            "--Fendrik:Proxies=127.0.0.1, ::1",
            $"--Logging:LogLevel:Default={Environment.GetEnvironmentVariable("FENDRIK_TEST_LOG") ?? (otherwise is null && webRoot is null ? "None" : "Error")}",
        ];
        if (webRoot is not null)
        {
            settings.Add($"--webroot={webRoot}");
        }

        var application = ServerApplication.Build(
            [.. settings],
            services =>
            {
                // Every test makes a person who signs in: with the usual work for passwords that would be a minute of each run.
                services.Configure<PasswordHasherOptions>(options => options.IterationCount = 1_000);
                otherwise?.Invoke(services);
            }
        );
        await ServerApplication.PrepareAsync(application);
        await application.StartAsync();
        return application;
    }

    /// <summary>An account on the network, and a person who belongs to it, signed in.</summary>
    public async Task<(int Account, Visitor Visitor, NetworkVisitor Network)> NewAccountAsync(
        string name = "Tarn & Fell Pianos"
    )
    {
        await using var scope = Application.Services.CreateAsyncScope();
        var database = scope.ServiceProvider.GetRequiredService<FendrikContext>();
        var account = new AccountRow
        {
            Name = name,
            Currency = "GBP",
            TimeZone = "Europe/London",
            NetworkId = "ostrel",
            Payer = name,
        };
        database.Accounts.Add(account);
        await database.SaveChangesAsync();
        await scope
            .ServiceProvider.GetRequiredService<SearchNetworks>()
            .Of(account.NetworkId)
            .SetUpAsync(account, NetworkVisitor.Monday, 1, CancellationToken.None);
        return (account.Id, await AddPersonAsync(account.Id), new NetworkVisitor(Network, $"fendrik-{account.Id}"));
    }

    /// <summary>One more person who belongs to an account, or to several, signed in.</summary>
    public Task<Visitor> AddPersonAsync(int account, string name = "Morag Kerr", params int[] more) =>
        AddPersonAsync(AccountRole.Owner, account, name, more);

    /// <summary>One more person who is something at an account, or at several, signed in.</summary>
    public async Task<Visitor> AddPersonAsync(
        AccountRole role,
        int account,
        string name = "Ewan Bell",
        params int[] more
    )
    {
        await using var scope = Application.Services.CreateAsyncScope();
        var database = scope.ServiceProvider.GetRequiredService<FendrikContext>();
        var email = $"{Guid.NewGuid():N}@tarnandfell.example";
        var person = new Person
        {
            UserName = email,
            Email = email,
            DisplayName = name,
        };
        (
            await scope.ServiceProvider.GetRequiredService<UserManager<Person>>().CreateAsync(person, Password)
        ).Succeeded.ShouldBeTrue();
        database.AccountMembers.AddRange(
            more.Append(account)
                .Select(each => new AccountMember
                {
                    AccountId = each,
                    PersonId = person.Id,
                    Role = role,
                })
        );
        await database.SaveChangesAsync();
        var visitor = new Visitor(Address, email);
        (await visitor.SignInAsync(Password)).ShouldBe(HttpStatusCode.NoContent);
        return visitor;
    }

    /// <summary>Holds an account as the long work of its first person does, until the connection is closed.</summary>
    public async Task<NpgsqlConnection> HoldAsync(int account, string doing)
    {
        var person = await QueryAsync<string>(
            "select person_id from account_member where account_id = @account limit 1",
            new { account }
        );
        var connection = new NpgsqlConnection(Database);
        await connection.OpenAsync();
        await using var hold = connection.CreateCommand();
        hold.CommandText =
            "begin; select set_config('application_name', @name, true); select from account where id = @account for no key update";
        var key = System.Buffers.Text.Base64Url.EncodeToString(Guid.Parse(person).ToByteArray());
        hold.Parameters.AddWithValue("name", $"fh - {key} {doing}");
        hold.Parameters.AddWithValue("account", account);
        await hold.ExecuteNonQueryAsync();
        return connection;
    }

    public async Task<T> QueryAsync<T>(string sql, object? parameters = null)
    {
        await using var connection = new NpgsqlConnection(Database);
        return (await connection.ExecuteScalarAsync<T>(sql, parameters))!;
    }

    public async ValueTask DisposeAsync()
    {
        await Application.DisposeAsync();
        await _network.DisposeAsync();
    }
}

/// <summary>A browser's part of the talk with the server: cookies and the token against forged requests.</summary>
public sealed class Visitor : IDisposable
{
    private readonly HttpClient _http;
    private readonly CookieContainer _cookies = new();

    public Visitor(string address, string email)
    {
        Email = email;
        _http = new HttpClient(new HttpClientHandler { CookieContainer = _cookies }) { BaseAddress = new Uri(address) };
    }

    /// <summary>What the server has given to be shown again.</summary>
    public IEnumerable<Cookie> Cookies => _cookies.GetAllCookies();

    public string Email { get; }

    public async Task<HttpStatusCode> SignInAsync(string password, string? code = null)
    {
        await RefreshTokenAsync();
        using var response = await _http.PostAsJsonAsync(
            "/api/session",
            new
            {
                email = Email,
                password,
                code,
            }
        );
        await RefreshTokenAsync();
        return response.StatusCode;
    }

    /// <summary>Comes from an address, as a proxy says.</summary>
    public Visitor From(string address)
    {
        _http.DefaultRequestHeaders.Remove("X-Forwarded-For");
        _http.DefaultRequestHeaders.Add("X-Forwarded-For", address);
        return this;
    }

    public async Task RefreshTokenAsync()
    {
        var session = await _http.GetFromJsonAsync<JsonElement>("/api/session");
        _http.DefaultRequestHeaders.Remove("X-Fendrik-Token");
        _http.DefaultRequestHeaders.Add("X-Fendrik-Token", session.GetProperty("token").GetString());
    }

    public void Dispose() => _http.Dispose();

    public void ForgetToken() => _http.DefaultRequestHeaders.Remove("X-Fendrik-Token");

    /// <summary>Who the server takes this visitor for; cookies do not care about ports, so any server on the host can be asked.</summary>
    public async Task<string?> PersonAtAsync(string address)
    {
        var session = await _http.GetFromJsonAsync<JsonElement>(address + "/api/session");
        return session.GetProperty("person").GetString();
    }

    public Task<HttpResponseMessage> GetAsync(string path) => _http.GetAsync(path);

    public Task<HttpResponseMessage> SendAsync(HttpMethod method, string path, object? body = null, Guid? name = null)
    {
        var request = new HttpRequestMessage(method, path)
        {
            Content = body is null ? null : JsonContent.Create(body, body.GetType()),
        };
        if (name is not null)
        {
            request.Headers.Add("X-Fendrik-Request", name.ToString());
        }

        return _http.SendAsync(request);
    }

    /// <summary>Listens to a stream of server-sent events.</summary>
    public async Task<Listener> ListenAsync(string path) => new(await _http.GetStreamAsync(path));

    public async Task<JsonElement> ReadAsync(string path)
    {
        using var response = await GetAsync(path);
        return await ContentAsync(response);
    }

    public async Task<JsonElement> PostAsync(string path, object? body = null, Guid? name = null)
    {
        using var response = await SendAsync(HttpMethod.Post, path, body, name);
        return await ContentAsync(response);
    }

    public async Task<JsonElement> UploadAsync(string path, byte[] content)
    {
        using var response = await PostBytesAsync(path, content);
        return await ContentAsync(response);
    }

    /// <summary>Sends a command under a name; it can be given up.</summary>
    public async Task<HttpResponseMessage> SendNamedAsync(
        string path,
        object body,
        Guid name,
        CancellationToken cancellation
    )
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path)
        {
            Content = JsonContent.Create(body, body.GetType()),
        };
        request.Headers.Add("X-Fendrik-Request", name.ToString());
        return await _http.SendAsync(request, cancellation);
    }

    /// <summary>Sends just this.</summary>
    public async Task<HttpResponseMessage> SendRawAsync(
        HttpMethod method,
        string path,
        string? json,
        CancellationToken cancellation
    )
    {
        using var request = new HttpRequestMessage(method, path)
        {
            Content = json is null ? null : new StringContent(json, System.Text.Encoding.UTF8, "application/json"),
        };
        return await _http.SendAsync(request, cancellation);
    }

    public async Task<HttpResponseMessage> PostTextAsync(string path, string json)
    {
        using var body = new StringContent(json, System.Text.Encoding.UTF8, "application/json");
        return await _http.PostAsync(path, body);
    }

    public async Task<HttpResponseMessage> PostBytesAsync(string path, byte[] content)
    {
        using var body = new ByteArrayContent(content);
        body.Headers.ContentType = new("application/octet-stream");
        return await _http.PostAsync(path, body);
    }

    /// <summary>The status of an account, once its changes are counted.</summary>
    public async Task<JsonElement> StatusAsync(int account)
    {
        for (var attempt = 0; attempt < 600; attempt++)
        {
            var status = await ReadAsync($"/api/accounts/{account}/status");
            if (!status.GetProperty("counting").GetBoolean())
            {
                return status;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException("The changes are not counted.");
    }

    /// <summary>Waits until a job ends and answers it.</summary>
    public async Task<JsonElement> JobAsync(int account, JsonElement job, int seconds = 30)
    {
        for (var attempt = 0; attempt < seconds * 20; attempt++)
        {
            var now = await ReadAsync($"/api/accounts/{account}/jobs/{job.GetProperty("id").GetInt64()}");
            if (now.GetProperty("state").GetString() is not ("waiting" or "running"))
            {
                return now;
            }

            await Task.Delay(50);
        }

        throw new TimeoutException("The job does not end.");
    }

    private static async Task<JsonElement> ContentAsync(HttpResponseMessage response)
    {
        var text = await response.Content.ReadAsStringAsync();
        response.IsSuccessStatusCode.ShouldBeTrue($"{(int)response.StatusCode} {text}");
        return text.Length == 0 ? default : JsonDocument.Parse(text).RootElement;
    }
}

/// <summary>Reads server-sent events one by one.</summary>
public sealed class Listener(Stream stream) : IDisposable
{
    private readonly StreamReader _reader = new(stream);

    public async Task<JsonElement> NextAsync()
    {
        using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
        while (await _reader.ReadLineAsync(patience.Token) is { } line)
        {
            if (line.StartsWith("data:", StringComparison.Ordinal))
            {
                return JsonDocument.Parse(line["data:".Length..]).RootElement;
            }
        }

        throw new EndOfStreamException("The events have ended.");
    }

    public void Dispose() => _reader.Dispose();
}
