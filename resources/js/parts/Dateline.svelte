<script lang="ts">
    import { Search } from '@lucide/svelte';
    import Bell from './Bell.svelte';
    import TurnClock from './TurnClock.svelte';
    import { initials } from '../state/moments';
    import { session } from '../state/session.svelte';
    import { crumbs } from '../state/crumbs.svelte';

    let { onfind }: { onfind: () => void } = $props();
</script>

<div class="dateline">
    {#if crumbs.parts.length > 1}
        {@const up = crumbs.parts.findLast((part, index) => part.to && index < crumbs.parts.length - 1)}
        {#if up}<a class="up" href={up.to}>‹ {up.label}</a>{/if}
    {/if}
    <div class="crumb">
        {#each crumbs.parts as part, index (index)}
            {#if index > 0}<span class="px-1.5">/</span>{/if}
            {#if part.to && index < crumbs.parts.length - 1}<a href={part.to}>{part.label}</a>{:else}<b>{part.label}</b>{/if}
        {/each}
    </div>
    <button type="button" class="find" onclick={onfind}
        ><Search class="glass" size={18} aria-hidden="true" /><span>Find or go to anything</span><kbd aria-hidden="true">Ctrl K</kbd
        ></button
    >
    <TurnClock />
    <Bell />
    <a
        class="avatar"
        href="/profile"
        title="{session.me?.name}, {session.me?.roleLabel}"
        aria-label="{initials(session.me?.name ?? '')}: your profile">{initials(session.me?.name ?? '')}</a
    >
</div>
