import type { SystemStyleObject } from '@chakra-ui/react';

/** On a phone so much of a card's width is for what its values are of. */
const LABEL_SHARE = '38%';

/**
 * Has each row of a wide table stand as a card on a phone: its first cell as title, the others one under the other,
 * each beside the head of its column. It stays a table for those who hear it: `grid` keeps its roles, `block` does not.
 * @param heads of the columns, as they stand in the table's head
 */
export const cardTable = (heads: readonly string[]): SystemStyleObject => ({
  '@media screen and (max-width: 47.99em)': {
    display: 'grid',
    minWidth: '0 !important',
    '& thead': { position: 'absolute', width: '1px', height: '1px', overflow: 'hidden', clipPath: 'inset(50%)' },
    '& tbody': { display: 'grid' },
    '& tbody tr': { display: 'grid', gap: '2px', paddingBlock: '8px', borderTopWidth: '2px' },
    '& tbody td': {
      display: 'grid',
      position: 'relative',
      paddingLeft: LABEL_SHARE,
      paddingBlock: '2px',
      width: 'auto',
      textAlign: 'left',
      whiteSpace: 'normal',
    },
    '& tbody td:empty': { display: 'none' },
    '& tbody td:first-of-type': { paddingLeft: '8px', fontWeight: 700, fontSize: 'md' },
    ...Object.fromEntries(
      heads
        .slice(1)
        .map((head, i) => [
          `& tbody td:nth-of-type(${i + 2})::before`,
          {
            content: JSON.stringify(head),
            position: 'absolute',
            left: '8px',
            width: `calc(${LABEL_SHARE} - 8px)`,
            paddingRight: '8px',
            color: 'soft',
            fontWeight: 500,
          },
        ]),
    ),
  },
});
