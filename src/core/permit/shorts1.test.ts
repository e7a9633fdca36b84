import { testPermits } from '@/testing/shortCampaign';

testPermits(1, 4100);
