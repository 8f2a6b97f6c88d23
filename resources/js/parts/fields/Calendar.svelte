<script lang="ts">
    import { Datepicker } from 'flowbite-svelte';
    import { language } from '../../state/language.svelte';

    /* A month to pick a day from. */
    type Props = { day: string; min?: string; max?: string; onpick: (day: string) => void };
    let { day, min, max, onpick }: Props = $props();

    /* The library reckons in the browser's own days; only year, month and day are read from them. */
    const local = (named: string) => new Date(Number(named.slice(0, 4)), Number(named.slice(5, 7)) - 1, Number(named.slice(8, 10)));
    const named = (date: Date) =>
        `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}-${String(date.getDate()).padStart(2, '0')}`;
</script>

<Datepicker
    inline
    value={local(day)}
    availableFrom={min ? local(min) : null}
    availableTo={max ? local(max) : null}
    locale={language.tag}
    firstDayOfWeek={1}
    onselect={(picked) => picked instanceof Date && onpick(named(picked))}
/>
