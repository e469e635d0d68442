using CsCheck;
using Fendrik.Core.Tracking;

namespace Fendrik.Core.Tests.Tracking;

public class UriTemplateTests
{
    private static TemplateValue Text(string text) => new TemplateValue.OfText(text);

    private static TemplateValue List(params string[] texts) => new TemplateValue.OfList(texts);

    private static TemplateValue Pairs(params (string Name, string Text)[] pairs) =>
        new TemplateValue.OfPairs([.. pairs.Select(pair => KeyValuePair.Create(pair.Name, pair.Text))]);

    /// <summary>The values of RFC 6570, section 3.2, quoted from memory.</summary>
    private static readonly Dictionary<string, TemplateValue> Values = new()
    {
        ["count"] = List("one", "two", "three"),
        ["dom"] = List("example", "com"),
        ["dub"] = Text("me/too"),
        ["hello"] = Text("Hello World!"),
        ["half"] = Text("50%"),
        ["var"] = Text("value"),
        ["who"] = Text("fred"),
        ["base"] = Text("http://example.com/home/"),
        ["path"] = Text("/foo/bar"),
        ["list"] = List("red", "green", "blue"),
        ["keys"] = Pairs(("semi", ";"), ("dot", "."), ("comma", ",")),
        ["v"] = Text("6"),
        ["x"] = Text("1024"),
        ["y"] = Text("768"),
        ["empty"] = Text(""),
        ["empty_keys"] = Pairs(),
    };

    private static string Expanded(string template) =>
        UriTemplate.TryRead(template, out var read, out var problem)
            ? read.Expand(name => Values.GetValueOrDefault(name))
            : throw new FormatException(problem);

    /// <summary>The examples of RFC 6570, sections 3.2.1 to 3.2.9, quoted from memory.</summary>
    [Theory]
    [InlineData("{count}", "one,two,three")]
    [InlineData("{count*}", "one,two,three")]
    [InlineData("{/count}", "/one,two,three")]
    [InlineData("{/count*}", "/one/two/three")]
    [InlineData("{;count}", ";count=one,two,three")]
    [InlineData("{;count*}", ";count=one;count=two;count=three")]
    [InlineData("{?count}", "?count=one,two,three")]
    [InlineData("{?count*}", "?count=one&count=two&count=three")]
    [InlineData("{&count*}", "&count=one&count=two&count=three")]
    [InlineData("{var}", "value")]
    [InlineData("{hello}", "Hello%20World%21")]
    [InlineData("{half}", "50%25")]
    [InlineData("O{empty}X", "OX")]
    [InlineData("O{undef}X", "OX")]
    [InlineData("{x,y}", "1024,768")]
    [InlineData("{x,hello,y}", "1024,Hello%20World%21,768")]
    [InlineData("?{x,empty}", "?1024,")]
    [InlineData("?{x,undef}", "?1024")]
    [InlineData("?{undef,y}", "?768")]
    [InlineData("{var:3}", "val")]
    [InlineData("{var:30}", "value")]
    [InlineData("{list}", "red,green,blue")]
    [InlineData("{list*}", "red,green,blue")]
    [InlineData("{keys}", "semi,%3B,dot,.,comma,%2C")]
    [InlineData("{keys*}", "semi=%3B,dot=.,comma=%2C")]
    [InlineData("{+var}", "value")]
    [InlineData("{+hello}", "Hello%20World!")]
    [InlineData("{+half}", "50%25")]
    [InlineData("{base}index", "http%3A%2F%2Fexample.com%2Fhome%2Findex")]
    [InlineData("{+base}index", "http://example.com/home/index")]
    [InlineData("O{+empty}X", "OX")]
    [InlineData("O{+undef}X", "OX")]
    [InlineData("{+path}/here", "/foo/bar/here")]
    [InlineData("here?ref={+path}", "here?ref=/foo/bar")]
    [InlineData("up{+path}{var}/here", "up/foo/barvalue/here")]
    [InlineData("{+x,hello,y}", "1024,Hello%20World!,768")]
    [InlineData("{+path,x}/here", "/foo/bar,1024/here")]
    [InlineData("{+path:6}/here", "/foo/b/here")]
    [InlineData("{+list}", "red,green,blue")]
    [InlineData("{+list*}", "red,green,blue")]
    [InlineData("{+keys}", "semi,;,dot,.,comma,,")]
    [InlineData("{+keys*}", "semi=;,dot=.,comma=,")]
    [InlineData("{#var}", "#value")]
    [InlineData("{#hello}", "#Hello%20World!")]
    [InlineData("{#half}", "#50%25")]
    [InlineData("foo{#empty}", "foo#")]
    [InlineData("foo{#undef}", "foo")]
    [InlineData("{#x,hello,y}", "#1024,Hello%20World!,768")]
    [InlineData("{#path,x}/here", "#/foo/bar,1024/here")]
    [InlineData("{#path:6}/here", "#/foo/b/here")]
    [InlineData("{#list}", "#red,green,blue")]
    [InlineData("{#list*}", "#red,green,blue")]
    [InlineData("{#keys}", "#semi,;,dot,.,comma,,")]
    [InlineData("{#keys*}", "#semi=;,dot=.,comma=,")]
    [InlineData("{.who}", ".fred")]
    [InlineData("{.who,who}", ".fred.fred")]
    [InlineData("{.half,who}", ".50%25.fred")]
    [InlineData("www{.dom*}", "www.example.com")]
    [InlineData("X{.var}", "X.value")]
    [InlineData("X{.empty}", "X.")]
    [InlineData("X{.undef}", "X")]
    [InlineData("X{.var:3}", "X.val")]
    [InlineData("X{.list}", "X.red,green,blue")]
    [InlineData("X{.list*}", "X.red.green.blue")]
    [InlineData("X{.keys}", "X.semi,%3B,dot,.,comma,%2C")]
    [InlineData("X{.keys*}", "X.semi=%3B.dot=..comma=%2C")]
    [InlineData("X{.empty_keys}", "X")]
    [InlineData("X{.empty_keys*}", "X")]
    [InlineData("{/who}", "/fred")]
    [InlineData("{/who,who}", "/fred/fred")]
    [InlineData("{/half,who}", "/50%25/fred")]
    [InlineData("{/who,dub}", "/fred/me%2Ftoo")]
    [InlineData("{/var}", "/value")]
    [InlineData("{/var,empty}", "/value/")]
    [InlineData("{/var,undef}", "/value")]
    [InlineData("{/var,x}/here", "/value/1024/here")]
    [InlineData("{/var:1,var}", "/v/value")]
    [InlineData("{/list}", "/red,green,blue")]
    [InlineData("{/list*}", "/red/green/blue")]
    [InlineData("{/list*,path:4}", "/red/green/blue/%2Ffoo")]
    [InlineData("{/keys}", "/semi,%3B,dot,.,comma,%2C")]
    [InlineData("{/keys*}", "/semi=%3B/dot=./comma=%2C")]
    [InlineData("{;who}", ";who=fred")]
    [InlineData("{;half}", ";half=50%25")]
    [InlineData("{;empty}", ";empty")]
    [InlineData("{;v,empty,who}", ";v=6;empty;who=fred")]
    [InlineData("{;v,bar,who}", ";v=6;who=fred")]
    [InlineData("{;x,y}", ";x=1024;y=768")]
    [InlineData("{;x,y,empty}", ";x=1024;y=768;empty")]
    [InlineData("{;x,y,undef}", ";x=1024;y=768")]
    [InlineData("{;hello:5}", ";hello=Hello")]
    [InlineData("{;list}", ";list=red,green,blue")]
    [InlineData("{;list*}", ";list=red;list=green;list=blue")]
    [InlineData("{;keys}", ";keys=semi,%3B,dot,.,comma,%2C")]
    [InlineData("{;keys*}", ";semi=%3B;dot=.;comma=%2C")]
    [InlineData("{?who}", "?who=fred")]
    [InlineData("{?half}", "?half=50%25")]
    [InlineData("{?x,y}", "?x=1024&y=768")]
    [InlineData("{?x,y,empty}", "?x=1024&y=768&empty=")]
    [InlineData("{?x,y,undef}", "?x=1024&y=768")]
    [InlineData("{?var:3}", "?var=val")]
    [InlineData("{?list}", "?list=red,green,blue")]
    [InlineData("{?list*}", "?list=red&list=green&list=blue")]
    [InlineData("{?keys}", "?keys=semi,%3B,dot,.,comma,%2C")]
    [InlineData("{?keys*}", "?semi=%3B&dot=.&comma=%2C")]
    [InlineData("{&who}", "&who=fred")]
    [InlineData("{&half}", "&half=50%25")]
    [InlineData("?fixed=yes{&x}", "?fixed=yes&x=1024")]
    [InlineData("{&x,y,empty}", "&x=1024&y=768&empty=")]
    [InlineData("{&x,y,undef}", "&x=1024&y=768")]
    [InlineData("{&var:3}", "&var=val")]
    [InlineData("{&list}", "&list=red,green,blue")]
    [InlineData("{&list*}", "&list=red&list=green&list=blue")]
    [InlineData("{&keys}", "&keys=semi,%3B,dot,.,comma,%2C")]
    [InlineData("{&keys*}", "&semi=%3B&dot=.&comma=%2C")]
    public void Expands_the_examples_of_the_standard(string template, string address) =>
        Expanded(template).ShouldBe(address);

    [Theory]
    [InlineData("{")]
    [InlineData("{keyword")]
    [InlineData("keyword}")]
    [InlineData("{}")]
    [InlineData("{?}")]
    [InlineData("{=page}")]
    [InlineData("{key word}")]
    [InlineData("{keyword:0}")]
    [InlineData("{keyword:99999}")]
    [InlineData("{keyword:3*}")]
    [InlineData("{a,,b}")]
    [InlineData("https://a.example/a b")]
    [InlineData("https://a.example/50%")]
    [InlineData("https://a.example/{x}|y")]
    public void Refuses_what_the_standard_has_no_meaning_for(string template)
    {
        UriTemplate.TryRead(template, out _, out var problem).ShouldBeFalse();
        problem.ShouldNotBeNullOrEmpty();
    }

    [Fact]
    public void Cuts_no_character_in_two()
    {
        UriTemplate.TryRead("{note:2}", out var template, out _).ShouldBeTrue();

        template!.Expand(_ => new TemplateValue.OfText("🎹🎵é")).ShouldBe("%F0%9F%8E%B9%F0%9F%8E%B5");
    }

    [Fact]
    public void Never_throws_and_makes_only_what_may_stand_in_an_address() =>
        Gen.Select(Gen.String, Gen.String)
            .Sample(
                (text, value) =>
                {
                    if (UriTemplate.TryRead(text, out var template, out _))
                    {
                        template
                            .Expand(_ => new TemplateValue.OfText(value))
                            .ShouldAllBe(character => character > ' ' && character < '\u007f');
                    }
                }
            );
}
