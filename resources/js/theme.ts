import type { ThemeConfig } from 'flowbite-svelte';

const look =
    'text-[13.5px] leading-normal bg-field border-edge text-ink rounded-[7px] px-2.5 py-[5px] placeholder:text-ink-3 ' +
    'focus:border-iris focus:ring-1 focus:ring-iris aria-invalid:border-madder disabled:bg-desk/50 disabled:opacity-70';

/** How a text of several lines looks: the library does not ask the theme about it. */
export const areaLook = `w-full block border ${look}`;

const box = 'm-0 size-4 shrink-0 bg-field border-edge text-iris accent-(--iris) focus:ring-iris';

/** Our look for the parts of the library, given once: paper, ink and iris. */
export const theme: ThemeConfig = {
    input: { input: look },
    select: { select: `${look} pr-7` },
    checkbox: { base: box, div: 'gap-1.5 font-normal text-[13.5px] text-ink' },
    radio: { input: `${box} rounded-full`, label: 'gap-1.5 font-normal text-[13.5px] text-ink' },
    modal: { base: 'rounded-xl border border-edge bg-page divide-y-0 text-ink shadow-2xl' },
    label: 'font-normal text-[13.5px] text-ink',
    tabs: { base: 'tabs space-x-0', content: 'm-0 p-0 bg-transparent rounded-none' },
    tabItem: {
        base: 'contents',
        button:
            'p-0 rounded-none bg-transparent hover:bg-transparent text-[13px] font-normal text-ink-2 hover:text-ink border-b-2 ' +
            'border-transparent aria-selected:border-iris aria-selected:text-ink aria-selected:font-semibold',
    },
    paginationNav: { base: 'space-x-0 gap-0.5', prev: 'rounded-md', next: 'rounded-md' },
    paginationButton:
        'h-auto rounded-md border-transparent bg-transparent px-2 py-[3px] text-[12.5px] text-ink-2 hover:bg-iris-wash hover:text-iris ' +
        'disabled:hover:bg-transparent',
};
