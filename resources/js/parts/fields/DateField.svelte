<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import CalendarDays from '@lucide/svelte/icons/calendar-days';
    import { untrack } from 'svelte';
    import { dayInWords, readDay, readMoment, shifted } from '../../state/dates';
    import { language } from '../../state/language.svelte';
    import { localDay } from '../../state/moments';
    import { clock } from '../../state/session.svelte';
    import Floating from '../Floating.svelte';

    /* A day ("2026-11-24"), or a moment on the company's clocks ("2026-11-24T09:30"), typed as people say it or picked. */
    type Props = {
        value: string | null;
        time?: boolean;
        id?: string;
        label?: string;
        placeholder?: string;
        required?: boolean;
        disabled?: boolean;
        invalid?: boolean;
        /** The first day that will do, and the last. */
        min?: string;
        max?: string;
        class?: string;
        autofocus?: boolean;
        onchange?: (value: string) => void;
    };
    let {
        value = $bindable(),
        time = false,
        id,
        label,
        placeholder,
        required = false,
        disabled = false,
        invalid = false,
        min,
        max,
        class: looks = '',
        autofocus = false,
        onchange,
    }: Props = $props();

    const shown = $derived(!value ? '' : `${dayInWords(value.slice(0, 10), language.tag)}${time ? ` ${value.slice(11, 16)}` : ''}`);
    let typed = $state(untrack(() => shown));
    let isTyping = $state(false);
    let input = $state<HTMLInputElement>();
    let picking = $state<HTMLElement | null>(null);
    const today = $derived(localDay(clock.now));
    const read = $derived.by(() => {
        if (!typed.trim()) return '';
        if (typed === shown) return value ?? '';
        return time ? readMoment(typed, today, language.tag, value?.slice(11, 16)) : readDay(typed, today, language.tag);
    });
    const wrong = $derived.by(() => {
        if (read === null) return `“${typed.trim()}” is no date. Write “tomorrow”, “fri”, “+3” or “24 Nov”.`;
        if (read && min && read.slice(0, 10) < min) return `Not before ${dayInWords(min, language.tag)}.`;
        if (read && max && read.slice(0, 10) > max) return `Not after ${dayInWords(max, language.tag)}.`;
        return '';
    });
    $effect(() => input?.setCustomValidity(wrong));
    $effect(() => {
        if (!isTyping) typed = shown;
    });

    function take() {
        if (wrong) return;
        isTyping = false;
        if (read !== (value ?? '')) {
            value = read ?? '';
            onchange?.(value);
        }
        typed = shown;
    }

    function pick(day: string) {
        typed = `${dayInWords(day, language.tag)}${time ? ` ${value?.slice(11, 16) || '09:00'}` : ''}`;
        take();
        picking = null;
        input?.focus();
    }

    function key(event: KeyboardEvent) {
        if (event.key === 'ArrowDown' && event.altKey) picking = input ?? null;
        else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            const from = read || value || `${today}T09:00`;
            const day = shifted(from.slice(0, 10), event.key === 'ArrowUp' ? 1 : -1);
            typed = dayInWords(day, language.tag) + (time ? ` ${from.slice(11, 16) || '09:00'}` : '');
            isTyping = true;
        } else if (event.key === 'Enter') return take();
        else return;
        event.preventDefault();
    }
</script>

<span class="relative inline-block w-full align-top {looks}">
    <Input
        {id}
        class="figures w-full pr-8 {wrong ? 'border-madder' : ''}"
        bind:elementRef={input}
        bind:value={() => typed, (next) => (typed = String(next ?? ''))}
        aria-label={label}
        aria-invalid={invalid || wrong !== '' ? true : undefined}
        placeholder={placeholder ?? (time ? 'tomorrow 9:00' : 'tomorrow, +3, 24 Nov')}
        autocomplete="off"
        {required}
        {disabled}
        {autofocus}
        oninput={() => (isTyping = true)}
        onkeydown={key}
        onblur={take}
        onchange={take}
    />
    <button
        type="button"
        class="icon absolute top-1 right-1"
        aria-label={label ? `Calendar: ${label}` : 'Calendar'}
        tabindex="-1"
        {disabled}
        onclick={(event) => (picking = picking ? null : event.currentTarget)}><CalendarDays size={15} /></button
    >
    {#if isTyping && typed.trim() && typed !== shown}
        <span class="date-reading {wrong ? 'text-madder' : ''}" aria-live="polite"
            >{wrong || `${dayInWords((read ?? '').slice(0, 10), language.tag, true)}${time ? ` ${(read ?? '').slice(11, 16)}` : ''}`}</span
        >
    {/if}
</span>

{#if picking}
    <Floating anchor={picking} label={label ?? 'Calendar'} onclose={() => (picking = null)}>
        {#await import('./Calendar.svelte') then { default: Calendar }}
            <Calendar day={(read || value || today).slice(0, 10)} {min} {max} onpick={pick} />
        {/await}
    </Floating>
{/if}
