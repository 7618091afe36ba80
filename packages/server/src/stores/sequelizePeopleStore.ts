import { col, fn, Op, QueryTypes, UniqueConstraintError, where, type Sequelize } from 'sequelize';
import type { SiteRightName } from '@syndeton/contract';
import { PassModel, PersonModel, SiteModel, SiteRightModel } from '../db/models.ts';
import type { Person } from '../people/whoAsks.ts';
import type { KnownPerson, PeopleStore, TokenRecord } from './peopleStore.ts';

export function makeSequelizePeopleStore(sequelize: Sequelize): PeopleStore {
  return {
    async list() {
      return (await PersonModel.findAll({ order: [[fn('lower', col('name')), 'ASC']] })).map(personOf);
    },
    async byName(name) {
      const row = await PersonModel.findOne({ where: where(fn('lower', col('name')), name.toLowerCase()) });
      return row ? known(row) : undefined;
    },
    async byId(id) {
      const row = await PersonModel.findByPk(id);
      return row ? known(row) : undefined;
    },
    async add(person) {
      try {
        return personOf(await PersonModel.create({ ...person }));
      } catch (error) {
        if (error instanceof UniqueConstraintError) return undefined;
        throw error;
      }
    },
    remove: (id) =>
      sequelize.transaction(async (transaction) => {
        const administrators = await PersonModel.findAll({ where: { isAdministrator: true }, transaction, lock: true });
        if (administrators.length === 1 && administrators[0]!.id === id) return 'last-administrator';
        return (await PersonModel.destroy({ where: { id }, transaction })) > 0 ? 'done' : 'nobody';
      }),
    setPassword: (id, password, except) =>
      sequelize.transaction(async (transaction) => {
        const [changed] = await PersonModel.update({ password }, { where: { id }, transaction });
        const others = except === undefined ? {} : { hash: { [Op.ne]: except } };
        await PassModel.destroy({ where: { personId: id, ...others }, transaction });
        return changed > 0;
      }),
    async addPass(pass) {
      return tokenRecord(await PassModel.create({ ...pass }));
    },
    async personOf(hash) {
      const [row] = await sequelize.query<Person>(
        `SELECT person.id, name, is_administrator AS "isAdministrator" FROM pass JOIN person ON person.id = person_id
         WHERE hash = $1 AND (ends_at IS NULL OR ends_at > now())`,
        { bind: [hash], type: QueryTypes.SELECT },
      );
      return row;
    },
    async dropPass(hash) {
      await PassModel.destroy({ where: { hash } });
    },
    async tokens(personId) {
      const where = { personId, label: { [Op.not]: null } };
      return (await PassModel.findAll({ where, order: [['createdAt', 'DESC']] })).map(tokenRecord);
    },
    async dropToken(personId, id) {
      return (await PassModel.destroy({ where: { personId, id, label: { [Op.not]: null } } })) > 0;
    },
    async purge() {
      await PassModel.destroy({ where: { endsAt: { [Op.lt]: new Date() } } });
    },
    async right(siteId, personId) {
      return (await SiteRightModel.findOne({ where: { siteId, personId } }))?.right;
    },
    rights: (siteId) =>
      sequelize.query<{ readonly name: string; readonly right: SiteRightName }>(
        `SELECT name, "right" FROM site_right JOIN person ON person.id = person_id WHERE site_id = $1
         ORDER BY array_position(ARRAY['own', 'edit', 'read'], "right"), lower(name)`,
        { bind: [siteId], type: QueryTypes.SELECT },
      ),
    setRight: (siteId, personId, right) =>
      sequelize
        .transaction(async (transaction) => {
          // one after the other for a site, so that two owners who give up at once leave one
          await SiteModel.findByPk(siteId, { transaction, lock: true, attributes: ['id'] });
          const before = await SiteRightModel.count({ where: { siteId, right: 'own' }, transaction });
          if (right === 'none') await SiteRightModel.destroy({ where: { siteId, personId }, transaction });
          else await SiteRightModel.upsert({ siteId, personId, right }, { transaction });
          const owners = await SiteRightModel.count({ where: { siteId, right: 'own' }, transaction });
          // one from before there were accounts is owned by nobody yet
          if (owners > 0 || before === 0) return true;
          throw new NoOwner();
        })
        .catch((error: unknown) => {
          if (error instanceof NoOwner) return false;
          throw error;
        }),
  };
}

/** Takes the transaction back. */
class NoOwner extends Error {}

const personOf = ({ id, name, isAdministrator }: Person): Person => ({ id, name, isAdministrator });
const known = (row: PersonModel): KnownPerson => ({ ...personOf(row), password: row.password });
const tokenRecord = ({ id, label, createdAt }: PassModel): TokenRecord => ({ id, label: label ?? '', createdAt });
