using Fendrik.Server;
using Fendrik.Server.Demo;

var app = ServerApplication.Build(args);
await ServerApplication.PrepareAsync(app);
if (app.Configuration["Fendrik:Demo"] is { Length: > 0 } folder)
{
    await using var scope = app.Services.CreateAsyncScope();
    await scope
        .ServiceProvider.GetRequiredService<DemoLoader>()
        .LoadAsync(folder, app.Configuration["Fendrik:DemoPassword"]!, CancellationToken.None);
}

await app.RunAsync();
