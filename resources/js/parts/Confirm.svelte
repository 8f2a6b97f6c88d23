<script lang="ts">
    import { Modal } from 'flowbite-svelte';
    import type { Snippet } from 'svelte';
    import { comesFirst } from './focus';

    type Props = {
        title: string;
        go: string;
        danger?: boolean;
        busy?: boolean;
        wide?: boolean;
        onconfirm: () => void;
        onclose: () => void;
        children: Snippet;
    };
    let { title, go, danger = false, busy = false, wide = false, onconfirm, onclose, children }: Props = $props();
    let open = $state(true);
    $effect(() => {
        if (!open) onclose();
    });
</script>

<Modal bind:open size={wide ? 'lg' : 'xs'} dismissable={false} classes={{ body: 'p-6 space-y-4' }}>
    <h2 class="text-lg">{title}</h2>
    <div class="space-y-3 text-[13.5px] text-ink-2">{@render children()}</div>
    <div class="flex justify-end gap-2 pt-2">
        <button type="button" class="btn" use:comesFirst={danger} onclick={() => (open = false)}>Cancel</button>
        <button type="button" class="btn {danger ? 'danger' : 'go'}" use:comesFirst={!danger} disabled={busy} onclick={onconfirm}
            >{go}</button
        >
    </div>
</Modal>
