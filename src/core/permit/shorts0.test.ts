import { testPermits } from '@/testing/shortCampaign';

testPermits(0, 4100);
