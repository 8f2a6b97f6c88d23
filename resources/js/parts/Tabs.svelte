<script lang="ts">
    import { TabItem, Tabs } from 'flowbite-svelte';
    import type { Snippet } from 'svelte';

    /* Tabs over a panel: the arrow keys go from one to the next, and what stands on the chosen one, told its key, is below. */
    type Tab = { key: string; label: string; count?: number; tone?: 'marigold' | 'madder' };
    type Props = {
        tabs: Tab[];
        chosen: string;
        onchoose: (key: string) => void;
        label: string;
        panel?: string;
        children: Snippet<[string]>;
    };
    let { tabs, chosen, onchoose, label, panel = '', children }: Props = $props();

    const STEPS: Record<string, (place: number) => number> = {
        ArrowRight: (place) => (place + 1) % tabs.length,
        ArrowLeft: (place) => (place - 1 + tabs.length) % tabs.length,
        Home: () => 0,
        End: () => tabs.length - 1,
    };

    function onkeydown(event: KeyboardEvent) {
        const step = STEPS[event.key];
        if (!step) return;
        const next = step(tabs.findIndex((tab) => tab.key === chosen));
        const buttons = (event.currentTarget as HTMLElement).querySelectorAll<HTMLElement>('[role=tab]');
        event.preventDefault();
        buttons[next]?.focus();
        onchoose(tabs[next]?.key ?? chosen);
    }
</script>

<Tabs selected={chosen} divider={false} classes={{ content: panel }} aria-label={label} {onkeydown}>
    {#each tabs as tab (tab.key)}
        <TabItem key={tab.key} open={tab.key === chosen} onclick={() => onchoose(tab.key)}>
            {#snippet titleSlot()}
                {tab.label}
                {#if tab.count}<span class="figures tab-count {tab.tone ?? ''}">{tab.count}</span>{/if}
            {/snippet}
            {@render children(tab.key)}
        </TabItem>
    {/each}
</Tabs>
