import type { Facts } from './facts';

const escapes: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as XML has it; what XML cannot hold at all is left out. */
export const xmlText = (text: string): string =>
  text
    .replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g, '')
    .replace(/[&<>"]/g, (c) => escapes[c] ?? c);

const words = (name: string, text: string): string =>
  text &&
  `<${name}><rdf:Alt><rdf:li xml:lang="x-default">${xmlText(text)}</rdf:li></rdf:Alt></${name}>`;
const plain = (name: string, text: string): string => text && `<${name}>${xmlText(text)}</${name}>`;

/**
 * The facts as XMP says them: dc:title, dc:description, the alternative text of IPTC Photo Metadata
 * 2021.1, dc:source, xmp:CreateDate and xmp:CreatorTool (ISO 16684-1). Empty where there are none.
 */
export function xmpDescription(facts: Facts): string {
  const body = [
    words('dc:title', facts.title),
    words('dc:description', facts.description),
    words('Iptc4xmpCore:AltTextAccessibility', facts.description),
    plain('dc:source', facts.origin),
    plain('xmp:CreateDate', facts.takenAt),
    plain('xmp:CreatorTool', facts.software),
  ].join('');
  return (
    body &&
    '<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/"' +
      ' xmlns:xmp="http://ns.adobe.com/xap/1.0/"' +
      ` xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${body}</rdf:Description>`
  );
}

/** The facts as a whole XMP packet; empty where there are none. */
export function xmpPacket(facts: Facts): string {
  const description = xmpDescription(facts);
  return (
    description &&
    '<?xpacket begin="\ufeff" id="W5M0MpCehiHzreSzNTczkc9d"?>' +
      '<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">' +
      `${description}</rdf:RDF></x:xmpmeta><?xpacket end="w"?>`
  );
}
