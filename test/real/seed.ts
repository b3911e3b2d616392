import type { ContentSystem, Upload } from './content-system.js';

/** A block of the system's editor around HTML. */
function block(name: string, settings: object, html: string): string {
  const told = Object.keys(settings).length > 0 ? ` ${JSON.stringify(settings)}` : '';
  return `<!-- wp:${name}${told} -->\n${html}\n<!-- /wp:${name} -->`;
}

const paragraph = (text: string) => block('paragraph', {}, `<p>${text}</p>`);

/** A picture in one of the system's sizes; with a link to the whole of it, as galleries have. */
function image({ id, url, sized }: Upload, size: string, isLinked = false): string {
  const img = `<img src="${sized(size)}" alt="A kite over the bay" class="wp-image-${id}"/>`;
  const inside = isLinked ? `<a href="${url}">${img}</a>` : img;
  const settings = { id, sizeSlug: size, linkDestination: isLinked ? 'media' : 'none' };
  return block('image', settings, `<figure class="wp-block-image size-${size}">${inside}</figure>`);
}

function gallery(pictures: readonly Upload[]): string {
  const figures = pictures.map((picture) => image(picture, 'large', true)).join('\n\n');
  return block(
    'gallery',
    { linkTo: 'media' },
    `<figure class="wp-block-gallery has-nested-images columns-default is-cropped">${figures}</figure>`,
  );
}

function cover({ id, url }: Upload): string {
  return block(
    'cover',
    { url, id, dimRatio: 50 },
    `<div class="wp-block-cover"><span aria-hidden="true" class="wp-block-cover__background has-background-dim"></span><img class="wp-block-cover__image-background wp-image-${id}" alt="" src="${url}" data-object-fit="cover"/><div class="wp-block-cover__inner-container">${block(
      'paragraph',
      { align: 'center', placeholder: 'Write title…', fontSize: 'large' },
      '<p class="has-text-align-center has-large-font-size">Saturday</p>',
    )}</div></div>`,
  );
}

function columns(pictures: readonly Upload[]): string {
  const parts = pictures.map((picture) =>
    block('column', {}, `<div class="wp-block-column">${image(picture, 'medium_large')}</div>`),
  );
  return block('columns', {}, `<div class="wp-block-columns">${parts.join('\n\n')}</div>`);
}

/** Fills the system through its API as an editor would: posts with pictures, a gallery, a cover, columns. */
export async function seed(
  system: ContentSystem,
  pictures: readonly Buffer[],
): Promise<{ uploads: readonly Upload[]; pages: readonly { id: number; link: string }[] }> {
  const uploads: Upload[] = [];
  for (const [at, body] of pictures.entries())
    uploads.push(await system.upload(`kite-${at + 1}.jpg`, body));
  const pages: { id: number; link: string }[] = [];
  const write = async (
    kind: 'posts' | 'pages',
    title: string,
    content: string,
    picture?: Upload,
  ) => {
    const { id, link } = await system.post(kind, {
      ...{ title, content, status: 'publish' },
      // What was published in the same second is listed now in one order, now in another.
      date: `2026-05-${String(pages.length + 1).padStart(2, '0')}T10:00:00`,
      ...(picture && { featured_media: picture.id }),
    });
    return { id: Number(id), link: String(link) };
  };
  for (const [at, picture] of uploads.entries()) {
    const other = uploads[(at + 1) % uploads.length]!;
    const text = [
      paragraph('The wind came from the west all morning.'),
      image(picture, 'large', at % 2 === 0),
      paragraph('By noon there were forty kites in the air.'),
      image(other, 'medium'),
    ].join('\n\n');
    pages.push(await write('posts', `Day ${at + 1}`, text, other));
  }
  pages.push(await write('pages', 'Gallery', gallery(uploads)));
  pages.push(
    await write(
      'pages',
      'Programme',
      [cover(uploads[0]!), columns(uploads.slice(1, 4))].join('\n\n'),
    ),
  );
  return { uploads, pages };
}
