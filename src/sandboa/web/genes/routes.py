"""The keeper's list of traits, what a pair can produce by it, and what hatched."""

from typing import Annotated

from fastapi import APIRouter, Path, Query

from sandboa.core.pairing.genes import DoubleForm, Inheritance
from sandboa.services.acts.revisions import revision_of, saved_over
from sandboa.services.animals import genes
from sandboa.services.breeding.pair_record import pair_record
from sandboa.services.forms.people_and_things import form_of_gene
from sandboa.web.genes.schemas import (
    FormResponse,
    GeneRequest,
    GeneResponse,
    PairResponse,
    SeenResponse,
)
from sandboa.web.house import NowS, TheHouse
from sandboa.web.requests.revisions import Seen
from sandboa.web.schemas.common import ActResponse, Id
from sandboa.web.security.permissions import LOOK, RECORD

router = APIRouter(prefix="/api", tags=["genes"])


GeneId = Annotated[Id, Path()]


@router.get("/genes", dependencies=[LOOK])
def get_genes() -> list[GeneResponse]:
    """The list, by name."""
    return [
        GeneResponse(
            id=row.entity_id,
            name=row.name,
            inheritance=Inheritance(row.inheritance),
            double_form=DoubleForm(row.double_form),
            revision=revision_of(form_of_gene(row)),
        )
        for row in genes.genes()
    ]


@router.post("/genes", dependencies=[RECORD], status_code=201)
def add_gene(asked: GeneRequest, now_s: NowS) -> ActResponse:
    """Put a trait on the list."""
    _, act = genes.add_gene(_said(asked), now_s)
    return ActResponse.of(act)


@router.put("/genes/{gene}", dependencies=[RECORD])
def correct_gene(gene: GeneId, asked: GeneRequest, seen: Seen, now_s: NowS) -> ActResponse:
    """Change a trait of the list."""
    with saved_over(seen, lambda: form_of_gene(genes.find_gene(gene))):
        return ActResponse.of(genes.correct_gene(gene, _said(asked), now_s))


@router.delete("/genes/{gene}", dependencies=[RECORD])
def drop_gene(gene: GeneId, now_s: NowS) -> ActResponse:
    """Take a trait off the list."""
    return ActResponse.of(genes.drop_gene(gene, now_s))


@router.get("/pairs/odds", dependencies=[LOOK])
def get_odds(
    house: TheHouse, dam: Annotated[Id, Query()], sire: Annotated[Id, Query()], now_s: NowS
) -> PairResponse:
    """What a dam and a sire can produce."""
    record = pair_record(house.snapshot(), dam, sire, now_s)
    return PairResponse(
        dam=record.dam,
        sire=record.sire,
        forms=[FormResponse.model_validate(form) for form in record.odds.forms],
        dies=record.odds.dies,
        harmful=record.odds.harmful,
        may_die=list(record.odds.may_die),
        unlisted=list(record.odds.unlisted),
        hatched=[SeenResponse.model_validate(seen) for seen in record.hatched],
        losses_words=record.losses_words,
        proofs=list(record.proofs),
    )


def _said(asked: GeneRequest) -> genes.GeneCommand:
    return genes.GeneCommand(asked.name, asked.inheritance, asked.double_form)
