import { object, string } from 'yup';
import { PLAIN_NAME } from '@/core/formats';
import { tryCode } from '@/server/access';
import { answering, bodyJson, checked, refuse } from '@/server/http';

export const dynamic = 'force-dynamic';

const pairing = object({
  code: string().required('code is missing').max(40, 'code has no more than 40 characters'),
  name: string()
    .required('name is missing')
    .max(80, 'name has no more than 80 characters')
    .matches(PLAIN_NAME, 'name must be plain text'),
}).noUnknown('only code and name are taken');

/** Lets a device in by the code that is shown where Gas Line runs. */
export const POST = answering(async (request: Request): Promise<Response> => {
  const body = await bodyJson(request, '{"code": "…", "name": "…"}');
  if (!body.ok) return body.response;
  const asked = checked(() => pairing.validateSync(body.value, { strict: true, abortEarly: true }));
  if (!asked.ok) return refuse(422, 'invalid', asked.detail);
  const tried = tryCode(asked.value.code, asked.value.name, request.headers.get('x-gasline-from') ?? '', Date.now());
  if (tried.ok) return new Response(null, { status: 204, headers: { 'set-cookie': tried.cookie } });
  const response = refuse(tried.code === 'slow' ? 429 : 403, tried.code, tried.detail);
  if (tried.wait_s) response.headers.set('retry-after', String(tried.wait_s));
  return response;
});
