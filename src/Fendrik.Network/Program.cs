using Fendrik.Network;
using Fendrik.Network.Serving;

var app = NetworkApplication.Build(args);
await app.Services.GetRequiredService<NetworkStore>().PrepareAsync();
await app.RunAsync();
