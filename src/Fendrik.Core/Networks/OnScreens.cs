using System.Text.Json.Serialization;

namespace Fendrik.Core.Networks;

/// <summary>How many of a kind a network shows on a screen.</summary>
/// <param name="Phone">On phones.</param>
/// <param name="Wide">On desktops and tablets.</param>
public sealed record OnScreens(int Phone, int Wide)
{
    /// <summary>The more of the two.</summary>
    [JsonIgnore]
    public int Most => Math.Max(Phone, Wide);

    /// <summary>On a device.</summary>
    public int On(Device device) =>
        device switch
        {
            Device.Phone => Phone,
            Device.Desktop or Device.Tablet => Wide,
        };
}
