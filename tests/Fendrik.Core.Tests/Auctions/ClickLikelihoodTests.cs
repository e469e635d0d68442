using Fendrik.Core.Auctions;
using MathNet.Numerics.Distributions;

namespace Fendrik.Core.Tests.Auctions;

public class ClickLikelihoodTests
{
    [Fact]
    public void Stands_where_the_level_above_stands_before_anything_was_shown() =>
        ClickLikelihood.Of(default, 1.7).ShouldBe(1.7, 1e-12);

    // Gelman et al., “Bayesian Data Analysis”, 3rd edition, section 2.6: a gamma prior of shape a and rate b and a Poisson count y
    // with exposure x give a gamma posterior of shape a + y and rate b + x. MathNet.Numerics has the mean of that distribution.
    [Theory]
    [InlineData(9, 4.5, 1)]
    [InlineData(0, 30, 0.8)]
    [InlineData(250, 200, 1.4)]
    public void Is_the_mean_of_the_posterior(double made, double expected, double above) =>
        ClickLikelihood
            .Of(new ClickRecord(made, expected), above)
            .ShouldBe(
                new Gamma(ClickLikelihood.Firmness * above + made, ClickLikelihood.Firmness + expected).Mean,
                1e-9
            );

    [Fact]
    public void Believes_many_clicks_more_than_few()
    {
        var few = ClickLikelihood.Of(new ClickRecord(2, 1), 1);
        var many = ClickLikelihood.Of(new ClickRecord(200, 100), 1);

        few.ShouldBeInRange(1, many);
        many.ShouldBeInRange(1.8, 2);
    }

    [Fact]
    public void Makes_a_usual_likelihood_half_of_what_can_be_had() => ClickLikelihood.PartOf(1).ShouldBe(0.5m);
}
