<script lang="ts">
    import { inFigures } from '../../../state/numbers';
    /* Turning the pages of a list. */
    type Props = { page: number; pages: number; onturn: (page: number) => void };
    let { page, pages, onturn }: Props = $props();
</script>

<nav class="ml-auto flex items-center gap-2" aria-label="Pages">
    <button type="button" class="btn quiet" disabled={page <= 1} onclick={() => onturn(page - 1)}>← Previous</button>
    <span class="figures">{inFigures(page)} / {inFigures(pages)}</span>
    <button type="button" class="btn quiet" disabled={page >= pages} onclick={() => onturn(page + 1)}>Next →</button>
</nav>
