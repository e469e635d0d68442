namespace Fendrik.Server.Access;

/// <summary>Headers that tell the browser to trust nothing but what Fendrik itself serves.</summary>
public static class SecurityHeaders
{
    /// <summary>Puts the headers on every answer; answers with an account's data are not kept by any cache.</summary>
    public static void UseFendrikHeaders(this IApplicationBuilder app)
    {
        app.UseSecurityHeaders(
            new HeaderPolicyCollection()
                .AddStrictTransportSecurityMaxAge()
                .AddContentTypeOptionsNoSniff()
                .AddReferrerPolicySameOrigin()
                .AddCrossOriginOpenerPolicy(policy => policy.SameOrigin())
                .AddPermissionsPolicy(policy =>
                {
                    policy.AddCamera().None();
                    policy.AddGeolocation().None();
                    policy.AddMicrophone().None();
                })
                .AddContentSecurityPolicy(policy =>
                {
                    policy.AddDefaultSrc().Self();
                    policy.AddScriptSrc().Self();
                    // Styles that components set on elements need it; scripts get no such leave.
                    policy.AddStyleSrc().Self().UnsafeInline();
                    policy.AddImgSrc().Self().Data();
                    policy.AddFontSrc().Self();
                    policy.AddConnectSrc().Self();
                    policy.AddObjectSrc().None();
                    policy.AddBaseUri().None();
                    policy.AddFormAction().Self();
                    policy.AddFrameAncestors().None();
                })
        );
        app.Use(
            (context, next) =>
            {
                if (context.Request.Path.StartsWithSegments("/api"))
                {
                    context.Response.Headers.CacheControl = "no-store";
                }

                return next(context);
            }
        );
    }
}
