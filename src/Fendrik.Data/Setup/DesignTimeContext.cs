using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Fendrik.Data.Setup;

/// <summary>For the command that writes migrations; never connects.</summary>
internal sealed class DesignTimeContext : IDesignTimeDbContextFactory<FendrikContext>
{
    public FendrikContext CreateDbContext(string[] args) =>
        new(FendrikDatabase.Configure(new DbContextOptionsBuilder<FendrikContext>(), "Host=127.0.0.1").Options);
}
