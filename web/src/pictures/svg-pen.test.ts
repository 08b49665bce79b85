/** @jest-environment jsdom */
import { SvgPen } from './svg-pen.ts';

function read(pen: SvgPen): Document {
  const text = pen.sheet(100, 50, 'Order: <error> & "h"');
  const sheet = new DOMParser().parseFromString(text, 'image/svg+xml');
  expect(sheet.querySelector('parsererror')).toBeNull();
  return sheet;
}

const measure = (): never => {
  throw new Error('nothing is measured here');
};

test('a sheet is well formed whatever it says, and has its title', () => {
  const pen = new SvgPen(measure);
  pen.textAlign = 'right';
  pen.fillText('<script>"&"</script>', 10.004, 20);
  const sheet = read(pen);
  expect(sheet.querySelector('title')?.textContent).toBe('Order: <error> & "h"');
  const text = sheet.querySelector('text');
  expect(text?.textContent).toBe('<script>"&"</script>');
  expect([text?.getAttribute('x'), text?.getAttribute('text-anchor')]).toEqual(['10', 'end']);
});

test('what is drawn within a clip is clipped until it is restored; strokes and fills have their colours', () => {
  const pen = new SvgPen(measure);
  pen.save();
  pen.beginPath();
  pen.rect(1, 2, 3, 4);
  pen.clip();
  pen.globalAlpha = 0.5;
  pen.strokeStyle = '#123456';
  pen.beginPath();
  pen.moveTo(0, 0);
  pen.lineTo(10, 5.555);
  pen.stroke();
  pen.restore();
  pen.fillStyle = '#abcdef';
  pen.fillRect(0, 0, 5, 5);
  const sheet = read(pen);
  const [clip, line] = sheet.querySelectorAll('path');
  expect(clip?.getAttribute('d')).toBe('M1 2h3v4h-3Z');
  expect(line?.getAttribute('d')).toBe('M0 0L10 5.56');
  expect(line?.getAttribute('clip-path')).toBe('url(#clip0)');
  expect(line?.getAttribute('opacity')).toBe('0.5');
  expect(line?.getAttribute('stroke')).toBe('#123456');
  const box = sheet.querySelector('rect');
  expect([box?.getAttribute('fill'), box?.hasAttribute('clip-path')]).toEqual(['#abcdef', false]);
});
