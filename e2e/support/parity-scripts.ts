import { newGestureUse } from '@core/motion';
import type { Part } from './parity-piece';

/** Words in the scripts of the world, letters in colours of their own, and letters that no font has. */

const words = (text: string, size: number, y: number, content: Record<string, unknown> = {}): Part => [
  'text',
  { size, position: [0, y], fill: '#eee9df' },
  { text, family: 'bricolage-grotesque', ...content },
];

export const SCRIPT_SCENES: readonly (readonly [string, readonly Part[]])[] = [
  [
    'names in ten scripts',
    [
      words('欧阳晓雯 臺灣 山田さん', 34, -140),
      words('오나 카스텔 · อิเนส วาร์ดาล', 34, -90),
      words('Ινές Βαρντάλ · Тео Марш', 34, -40),
      words('ইনেস ভার্দাল · இனெஸ் வர்தால்', 34, 10),
      words('ინეს · Ինես · ኢኔስ · អ៊ីណេស', 34, 60),
      words('إينيس 🪁 ואן · \u{E001}', 34, 110),
    ],
  ],
  [
    'lines of Thai, Khmer, Lao and Korean, and a word longer than its line',
    [
      words('สัปดาห์ว่าวเก้าวันแห่งสายลมที่ท่าเรือ', 30, -110, { wrapWidth: 260 }),
      words('ប្រាំបួនថ្ងៃនៃខ្យល់នៅកំពង់ផែ', 30, -20, { wrapWidth: 260 }),
      words('ເກົ້າວັນແຫ່ງລົມຢູ່ທ່າເຮືອ', 30, 40, { wrapWidth: 240 }),
      words('연 주간은 바람의 아홉 날이다', 30, 90, { wrapWidth: 200 }),
      words('Drachenflugwochenendveranstaltung', 30, 140, { wrapWidth: 300 }),
    ],
  ],
  [
    'emoji that come in letter by letter',
    [
      [
        'text',
        { size: 70, position: [0, 0] },
        { text: 'Wind 🪁 👩‍🚀 🇪🇸 1️⃣', family: 'fraunces' },
        undefined,
        { gestures: [{ ...newGestureUse('nova', 'entrance', 'g'), duration: { unit: 'seconds', value: 1 } }] },
      ],
    ],
  ],
];
