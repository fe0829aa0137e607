import { headers } from 'next/headers';
import { requirePermission } from '@/server/access';
import { ShelfPage } from '@/shelf/ShelfPage';

export const dynamic = 'force-dynamic';

export default async function WorkshopShelfPage() {
  await requirePermission('read-shelf');
  return <ShelfPage nonce={(await headers()).get('x-nonce')} />;
}
