import { testPermits } from '@/testing/shortCampaign';

testPermits(2, 4100);
