import type { Schemas } from '../api/client';
import { AdPicture } from './AdPicture';

/** A new ad in a list of changes: an ad, not a paragraph of its fields. */
export const seenAd = (ad: Schemas['SeenAd']) => (
  <div className="max-w-md">
    <AdPicture
      headlines={ad.headlines}
      descriptions={ad.descriptions}
      displayPath={ad.displayPath}
      landingPage={ad.landingPage ?? ''}
      business={ad.business}
      calls={ad.calls}
      change={ad.change}
    />
  </div>
);
