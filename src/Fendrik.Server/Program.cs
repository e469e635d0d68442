using Fendrik.Server;
using Fendrik.Server.Demo;

var app = ServerApplication.Build(args);
await ServerApplication.PrepareAsync(app);
if (app.Configuration["Fendrik:Scenario"] is { Length: > 0 } scenario)
{
    await using var scope = app.Services.CreateAsyncScope();
    await scope
        .ServiceProvider.GetRequiredService<DemoLoader>()
        .LoadAsync(scenario, app.Configuration["Fendrik:FirstPassword"]!, CancellationToken.None);
}

await app.RunAsync();
