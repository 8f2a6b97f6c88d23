<script lang="ts">
    import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
    import { api, ask } from '../api/client';
    import { go } from '../router';
    import { onDestroy } from 'svelte';
    import { session } from '../state/session.svelte';
    import { takesFocus } from './focus';

    let { onclose }: { onclose: () => void } = $props();
    let typed = $state('');
    let at = $state(0);
    // Whoever closes it without going anywhere is back where they were.
    const before = document.activeElement;
    onDestroy(() => before instanceof HTMLElement && before.isConnected && before.focus());

    const found = createQuery(() => ({
        queryKey: ['find', typed],
        enabled: typed.trim().length > 1,
        queryFn: ({ signal }) => ask(api.GET('/api/find', { params: { query: { text: typed } }, signal })),
        placeholderData: keepPreviousData,
    }));
    const rules = createQuery(() => ({ queryKey: ['rules'], queryFn: () => ask(api.GET('/api/rules')) }));
    const places = $derived([
        { label: 'Today', to: '/' },
        ...(session.schema?.types ?? []).map((type) => ({ label: type.plural, to: `/records/${type.name}` })),
        { label: 'Rules', to: '/rules' },
        { label: 'Tasks', to: '/tasks' },
        ...(session.has('see_ledger') ? [{ label: 'Ledger', to: '/ledger' }] : []),
        { label: 'Setup', to: '/setup' },
        { label: 'Your profile and API tokens', to: '/profile' },
    ]);
    const results = $derived.by(() => {
        const fits = (label: string) => label.toLowerCase().includes(typed.trim().toLowerCase());
        return [
            ...places.filter((place) => fits(place.label)).map((place) => ({ ...place, hint: 'go to' })),
            ...(rules.data ?? [])
                .filter((rule) => typed && fits(rule.name))
                .map((rule) => ({ label: rule.name, to: `/rules/${rule.id}`, hint: 'rule' })),
            ...(typed.trim().length > 1 ? (found.data ?? []) : []).map((record) => ({
                label: record.title,
                to: `/records/${record.type}/${record.id}`,
                hint: record.number,
            })),
        ];
    });

    // Whoever types and presses Enter faster than answers come gets what they typed, not what stood there before.
    const isLoading = $derived(rules.isPending || (typed.trim().length > 1 && (found.isPending || found.isPlaceholderData)));
    let isEager = $state(false);
    $effect(() => {
        if (isEager && !isLoading) open(at);
    });

    function open(index: number) {
        isEager = false;
        const result = results[index];
        if (!result) return;
        onclose();
        go(result.to);
    }

    function key(event: KeyboardEvent) {
        if (event.key === 'ArrowDown') at = Math.min(results.length - 1, at + 1);
        else if (event.key === 'ArrowUp') at = Math.max(0, at - 1);
        else if (event.key === 'Enter') isLoading ? (isEager = true) : open(at);
        else if (event.key === 'Escape') onclose();
        else return;
        event.preventDefault();
    }
</script>

<div
    class="fixed inset-0 z-50 bg-[#221c3d55]"
    onpointerdown={(event) => event.target === event.currentTarget && onclose()}
    role="presentation"
>
    <div
        class="mx-auto mt-24 w-[560px] overflow-hidden rounded-xl border border-edge bg-page shadow-2xl"
        role="dialog"
        aria-label="Find or go to anything"
    >
        <input
            class="w-full bg-transparent px-5 py-4 text-[15px] outline-none"
            placeholder="A number, a name, a screen…"
            aria-label="Find or go to anything"
            bind:value={typed}
            oninput={() => ([at, isEager] = [0, false])}
            onkeydown={key}
            use:takesFocus
        />
        <div class="max-h-[380px] overflow-auto border-t border-ruled py-1">
            {#each results as result, index (result.to)}
                <button
                    type="button"
                    class="flex w-full items-center px-5 py-1.5 text-left {index === at ? 'bg-iris-wash' : ''}"
                    onpointermove={() => (at = index)}
                    onclick={() => open(index)}
                >
                    {result.label}<span class="figures mini ml-auto">{result.hint}</span>
                </button>
            {:else}
                <p class="px-5 py-3 text-ink-3">{found.isFetching ? 'Looking…' : `Nothing is called “${typed}”.`}</p>
            {/each}
        </div>
    </div>
</div>
